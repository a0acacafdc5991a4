// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/written.h"

#include "base/letters.h"
#include "base/number.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <regex>

namespace jg {

namespace {

/// A full stop between digits is no end of a sentence.
std::vector<std::string> sentencesOf(const std::string& text) {
    std::vector<std::string> all(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        all.back() += text[i];
        const bool digit = i + 1 < text.size() && std::isdigit(static_cast<unsigned char>(text[i + 1]));
        if ((text[i] == '.' && !digit) || text[i] == '!' || text[i] == '?' || text[i] == '\n')
            all.emplace_back();
    }
    return all;
}

std::string unitOf(const std::string& word) {
    static const std::map<std::string, std::string> units = {
        {"degrees", "deg"}, {"degree", "deg"}, {"deg", "deg"},   {"\u00b0", "deg"}, {"ms", "ms"},
        {"s", "s"},         {"second", "s"},   {"seconds", "s"}, {"%", "%"},        {"percent", "%"},
        {"in", "in"},       {"inches", "in"},  {"inch", "in"}};
    const auto it = units.find(word);
    return it == units.end() ? "" : it->second;
}

std::vector<WrittenNumber> numbersOf(const std::string& sentence) {
    static const std::regex number("(-?[0-9]{1,4}(?:[.,][0-9]{1,2})?)\\s?(degrees|degree|deg|\u00b0|ms|"
                                   "seconds|second|s|%|percent|inches|inch|in)(?![a-z])");
    std::vector<WrittenNumber> all;
    for (std::sregex_iterator it(sentence.begin(), sentence.end(), number), end; it != end; ++it) {
        std::string digits = (*it)[1];
        std::replace(digits.begin(), digits.end(), ',', '.');
        const auto value = typedNumber(digits);
        if (!value) continue;
        const auto point = digits.find('.');
        const int decimals = point == std::string::npos ? 0 : static_cast<int>(digits.size() - point - 1);
        const std::string unit = unitOf((*it)[2]);
        // Letters tell seconds, measures are in milliseconds.
        if (unit == "s")
            all.push_back({*value * 1000, decimals - 3, "ms", it->str()});
        else
            all.push_back({*value, decimals, unit, it->str()});
    }
    return all;
}

} // namespace

std::vector<std::string> namesOf(const MeasureDefinition& m) {
    const auto head = [](const std::string& name) { return lowered(name.substr(0, name.find(','))); };
    std::vector<std::string> names = {head(m.shortName), lowered(m.name)};
    std::erase_if(names, [](const std::string& n) { return n.empty(); });
    return names;
}

std::vector<WrittenNumber> numbersIn(std::string_view text, const std::vector<std::string>& names) {
    std::vector<WrittenNumber> all;
    for (const std::string& sentence : sentencesOf(lowered(text))) {
        const bool about =
            names.empty() || std::any_of(names.begin(), names.end(), [&](const std::string& n) {
                return sentence.find(n) != std::string::npos;
            });
        if (!about) continue;
        for (WrittenNumber& n : numbersOf(sentence)) all.push_back(std::move(n));
    }
    return all;
}

namespace {

std::regex wrongSidesOf(Hand hand) {
    const std::string throwing = hand == Hand::Right ? "right" : "left",
                      other = hand == Hand::Right ? "left" : "right";
    const std::string part = "(?: (?:hand|arm|elbow|shoulder|wrist|leg|knee|foot|hip|ankle|toe|heel|side))";
    const auto pieces = [&](const std::string& side, const std::string& roles) {
        return "\\b(?:" + side + " (?:" + roles + ")" + part + "|(?:" + roles + ") " + side + part + ")\\b";
    };
    return std::regex(pieces(other, "throwing|back|rear|drive") + "|" +
                      pieces(throwing, "front|lead|glove|stride") + "|\\b" + other +
                      "[- ]?(?:hander|handed)\\b");
}

} // namespace

std::vector<std::string> wrongSidesIn(std::string_view text, Hand hand) {
    // Made once: every text of a review is read after every edit.
    static const std::regex right = wrongSidesOf(Hand::Right), left = wrongSidesOf(Hand::Left);
    const std::regex& wrong = hand == Hand::Right ? right : left;
    const std::string all = lowered(text);
    std::vector<std::string> found;
    for (std::sregex_iterator it(all.begin(), all.end(), wrong), end; it != end; ++it)
        found.push_back(it->str());
    return found;
}

} // namespace jg
