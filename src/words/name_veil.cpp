#include "words/name_veil.h"

#include "words/icu_text.h"

#include <unicode/uchar.h>

#include <algorithm>

namespace jg {

namespace {

using icu::UnicodeString;

std::string smallOf(UnicodeString word) {
    return narrow(word.foldCase());
}

bool isNamePart(UChar32 c) {
    return u_isalpha(c) || c == '\'' || c == 0x2019;
}

/// Runs of letters, and what stands between them, one after the other.
std::vector<UnicodeString> runsOf(const UnicodeString& text) {
    std::vector<UnicodeString> runs;
    int32_t from = 0;
    for (int32_t at = 0; at < text.length();) {
        const int32_t next = text.moveIndex32(at, 1);
        const bool here = isNamePart(text.char32At(at));
        const bool goesOn = next < text.length() && isNamePart(text.char32At(next)) == here;
        if (!goesOn) {
            runs.emplace_back(text, from, next - from);
            from = next;
        }
        at = next;
    }
    return runs;
}

/// "Odalys's" is Odalys, too.
UnicodeString withoutEnding(const UnicodeString& word, UnicodeString& ending) {
    for (const char16_t* s : {u"'s", u"\u2019s", u"'", u"\u2019"})
        if (word.endsWith(s)) {
            ending = s;
            return UnicodeString(word, 0, word.length() - ending.length());
        }
    return word;
}

bool allSmall(const UnicodeString& word) {
    return u_islower(word.char32At(0));
}

/// Every word with an @ in it.
std::string withoutAddresses(std::string_view text) {
    constexpr std::string_view kEnds = " \t\n<>()[]\",;";
    std::string out;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find_first_of(kEnds, at), text.size());
        const std::string_view word = text.substr(at, end - at);
        const bool address = word.size() > 2 && word.find('@') != word.npos && word.find('@') > 0;
        out += address ? "\u2026@\u2026" : std::string(word);
        if (end < text.size()) out += text[end];
        at = end + 1;
    }
    return out;
}

} // namespace

NameVeil::NameVeil(const std::vector<Person>& people, const std::string& anybody) {
    for (const Person& person : people)
        for (const std::string& name : person.names)
            for (const UnicodeString& run : runsOf(wide(name))) {
                if (!isNamePart(run.char32At(0)) || allSmall(run) || run.length() == 1) continue;
                const auto [known, isNew] = instead_.try_emplace(smallOf(run), person.instead);
                if (!isNew && known->second != person.instead) known->second = anybody;
            }
}

std::string NameVeil::operator()(std::string_view text) const {
    std::string out, last, between;
    bool ended = false; // the name before has an ending of its own
    for (const UnicodeString& run : runsOf(wide(withoutAddresses(text)))) {
        if (!isNamePart(run.char32At(0))) {
            between += narrow(run);
            continue;
        }
        UnicodeString ending;
        const UnicodeString word = withoutEnding(run, ending);
        const auto found = word.isEmpty() || allSmall(word) ? instead_.end() : instead_.find(smallOf(word));
        if (found == instead_.end()) {
            out += between + narrow(run);
            last.clear();
        } else if (found->second == last && (between == " " || between == "-") && !ended) {
            out += narrow(ending);
        } else {
            out += between + found->second + narrow(ending);
            last = found->second;
        }
        ended = !ending.isEmpty();
        between.clear();
    }
    return out + between;
}

} // namespace jg
