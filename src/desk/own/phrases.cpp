// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/phrases.h"

#include "base/document.h"
#include "library/sha256.h"

#include <algorithm>

namespace jg {

using nlohmann::json;

namespace {

struct Phrase {
    std::string of, words;
};

std::optional<Phrase> phraseFrom(const ListEntry& row) {
    const json d = parseDocumentOrNone(row.document);
    const bool fits = d.is_object() && d.contains("of") && d["of"].is_string() && d.contains("words") &&
                      d["words"].is_string();
    return fits ? std::optional(Phrase{d["of"], d["words"]}) : std::nullopt;
}

} // namespace

std::vector<std::string> phrasesFor(Store& store, const std::string& key) {
    std::vector<std::string> phrases;
    const auto rows = store.rows(ListOf::Phrases);
    if (!rows) return phrases;
    for (auto row = rows->rbegin(); row != rows->rend(); ++row) // the one used last comes first
        if (auto phrase = phraseFrom(*row); phrase && phrase->of == key)
            phrases.push_back(std::move(phrase->words));
    return phrases;
}

Status rememberPhrase(Store& store, const std::string& key, const std::string& words) {
    return store.changeRows(ListOf::Phrases, [&](std::vector<ListEntry>& rows) -> Status {
        const std::string name = sha256(key + "\n" + words);
        std::erase_if(rows, [&](const ListEntry& row) { return row.key == name; });
        rows.push_back({0, name, json{{"of", key}, {"words", words}}.dump()});
        std::size_t kept = 0;
        for (auto row = rows.rbegin(); row != rows.rend(); ++row)
            if (const auto phrase = phraseFrom(*row); phrase && phrase->of == key && ++kept > kMostPhrases)
                row->key.clear(); // beyond the newest ones
        std::erase_if(rows, [](const ListEntry& row) { return row.key.empty(); });
        return Done{};
    });
}

} // namespace jg
