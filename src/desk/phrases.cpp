#include "desk/phrases.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {

namespace {

constexpr const char* kSetting = "letter.phrases";

nlohmann::json allPhrases(Store& store) {
    nlohmann::json all = nlohmann::json::parse(store.setting(kSetting, "{}"), nullptr, false);
    return all.is_object() ? all : nlohmann::json::object();
}

} // namespace

std::vector<std::string> phrasesFor(Store& store, const std::string& key) {
    std::vector<std::string> phrases;
    const nlohmann::json all = allPhrases(store);
    if (const auto of = all.find(key); of != all.end() && of->is_array())
        for (const auto& phrase : *of)
            if (phrase.is_string()) phrases.push_back(phrase);
    return phrases;
}

Status rememberPhrase(Store& store, const std::string& key, const std::string& words) {
    std::vector<std::string> phrases = phrasesFor(store, key);
    std::erase(phrases, words);
    phrases.insert(phrases.begin(), words);
    if (phrases.size() > kMostPhrases) phrases.resize(kMostPhrases);
    nlohmann::json all = allPhrases(store);
    all[key] = phrases;
    return store.setSetting(kSetting, all.dump());
}

} // namespace jg
