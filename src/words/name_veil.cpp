// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/name_veil.h"

#include "base/mutex.h"
#include "words/icu_text.h"

#include <unicode/normalizer2.h>
#include <unicode/translit.h>
#include <unicode/uchar.h>
#include <unicode/uscript.h>

#include <algorithm>
#include <array>
#include <memory>
#include <optional>

namespace jg {

namespace {

using icu::UnicodeString;

constexpr std::size_t kShort = 4;  ///< letters: a shorter name has few endings, and none within a word
constexpr std::size_t kLongIn = 6; ///< letters of a name that is found within a longer word

UScriptCode scriptOf(UChar32 c) {
    UErrorCode error = U_ZERO_ERROR;
    const UScriptCode script = uscript_getScript(c, &error);
    return U_SUCCESS(error) ? script : USCRIPT_COMMON;
}

/// Scripts whose words stand without spaces between them.
bool isUnspaced(UChar32 c) {
    switch (scriptOf(c)) {
    case USCRIPT_HAN:
    case USCRIPT_HIRAGANA:
    case USCRIPT_KATAKANA:
    case USCRIPT_HANGUL:
    case USCRIPT_THAI:
    case USCRIPT_LAO:
    case USCRIPT_KHMER:
    case USCRIPT_MYANMAR:
        return true;
    default:
        return false;
    }
}

bool isNamePart(UChar32 c) {
    const auto mark = U_GET_GC_MASK(c) & (U_GC_MN_MASK | U_GC_MC_MASK);
    return u_isalpha(c) || mark != 0 || c == '\'' || c == 0x2019 ||
           u_hasBinaryProperty(c, UCHAR_DEFAULT_IGNORABLE_CODE_POINT);
}

/// Runs of letters, and what stands between them, one after the other. A capital behind a small letter
/// begins a new one.
std::vector<UnicodeString> runsOf(const UnicodeString& text) {
    std::vector<UnicodeString> runs;
    int32_t from = 0;
    for (int32_t at = 0; at < text.length();) {
        const int32_t next = text.moveIndex32(at, 1);
        const UChar32 c = text.char32At(at), after = next < text.length() ? text.char32At(next) : 0;
        const bool here = isNamePart(c);
        const bool goesOn = next < text.length() && isNamePart(after) == here;
        if (!goesOn || (u_islower(c) && u_isupper(after))) {
            runs.emplace_back(text, from, next - from);
            from = next;
        }
        at = next;
    }
    return runs;
}

bool isAscii(const UnicodeString& text) {
    for (int32_t i = 0; i < text.length(); ++i)
        if (text.charAt(i) >= 0x80) return false;
    return true;
}

/// Any script as plain Latin letters. Making one is slow, and using one is not for two threads.
UnicodeString inLatin(UnicodeString text) {
    static Mutex mutex;
    static const std::unique_ptr<icu::Transliterator> toLatin = [] {
        UErrorCode error = U_ZERO_ERROR;
        return std::unique_ptr<icu::Transliterator>(icu::Transliterator::createInstance(
            "NFKD; [:Nonspacing Mark:] Remove; Any-Latin; NFKD; [:Nonspacing Mark:] Remove; Latin-ASCII",
            UTRANS_FORWARD, error));
    }();
    const Holding lock(mutex);
    if (toLatin) toLatin->transliterate(text);
    return text;
}

/// A word as plain small Latin letters and nothing else.
std::string keyOf(const UnicodeString& word) {
    UnicodeString plain = isAscii(word) ? word : inLatin(word);
    plain.foldCase();
    std::string key;
    for (int32_t i = 0; i < plain.length(); ++i)
        if (plain.charAt(i) < 0x80 && u_isalpha(plain.charAt(i))) key += static_cast<char>(plain.charAt(i));
    return key;
}

/// One letter for all that stand for one sound in some script.
char soundLetter(char c) {
    switch (c) {
    case 'y':
    case 'j':
    case 'u':
        return 'i';
    case 'w':
    case 'b':
        return 'v';
    case 'c':
    case 'q':
        return 'k';
    case 'z':
        return 's';
    default:
        return c;
    }
}

bool isOpen(char c) {
    return std::string_view("aeo").find(c) != std::string_view::npos;
}

/// How a key may be spelled by who writes it in another script: what one script has no letter for is left
/// out.
std::string soundOf(const std::string& key) {
    std::string all;
    for (std::size_t i = 0; i < key.size(); ++i) {
        const bool ph = key[i] == 'p' && i + 1 < key.size() && key[i + 1] == 'h';
        if (key[i] == 'h') continue;
        if (key[i] == 'x') all += 'k';
        all += ph ? 'f' : key[i] == 'x' ? 's' : soundLetter(key[i]);
    }
    std::string sound;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool beforeOpen = i + 1 < all.size() && isOpen(all[i + 1]);
        const bool glide = beforeOpen && (all[i] == 'i' || (all[i] == 'v' && i > 0 && all[i - 1] == 'g'));
        if (!glide && (sound.empty() || sound.back() != all[i])) sound += all[i];
    }
    return sound;
}

/// True for words that stand before a name in many, and name nobody.
bool isParticle(std::string_view key) {
    static constexpr std::array kAll = {"von", "van", "der",  "den", "de",  "del", "della", "di", "da", "das",
                                        "dos", "do",  "du",   "la",  "las", "le",  "los",   "al", "el", "bin",
                                        "ibn", "ben", "bint", "abu", "zu",  "ter", "ten",   "y",  "e",  "of",
                                        "jr",  "sr",  "ii",   "iii", "st",  "mac", "mc",    "ap", "af", "av"};
    return std::find(kAll.begin(), kAll.end(), key) != kAll.end();
}

/// "Odalys's" is Odalys, too: what is left behind it.
UnicodeString endingOf(const UnicodeString& word) {
    for (const char16_t* s : {u"'s", u"\u2019s", u"'", u"\u2019"})
        if (word.endsWith(s)) return s;
    return {};
}

/// Letters that a name takes on in one language or the other; own choice.
bool isEnding(std::string_view rest) {
    static constexpr std::array kAll = {
        "s",   "es",  "ns", "n",   "en",  "e",    "a",    "as",   "o",    "os",   "i",    "u",   "y",
        "ie",  "ies", "ys", "ito", "ita", "itos", "itas", "cito", "cita", "illo", "illa", "in",  "ina",
        "ino", "om",  "em", "am",  "ou",  "oj",   "ov",   "ova",  "ovi",  "ovu",  "ev",   "eva", "ja",
        "ya",  "ai",  "ei", "ene", "et",  "ette", "chen", "lein", "ka",   "ko",   "ku",   "ke",  "ek"};
    return std::find(kAll.begin(), kAll.end(), rest) != kAll.end();
}

bool isVowel(char c) {
    return std::string_view("aeiou").find(c) != std::string_view::npos;
}

bool isLatin(const UnicodeString& word) {
    for (int32_t i = 0; i < word.length(); i = word.moveIndex32(i, 1))
        if (const UScriptCode script = scriptOf(word.char32At(i));
            script != USCRIPT_LATIN && script != USCRIPT_COMMON && script != USCRIPT_INHERITED)
            return false;
    return true;
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

UnicodeString composed(const UnicodeString& text) {
    UErrorCode error = U_ZERO_ERROR;
    const icu::Normalizer2* nfkc = icu::Normalizer2::getNFKCInstance(error);
    UnicodeString out = U_SUCCESS(error) ? nfkc->normalize(text, error) : text;
    return U_SUCCESS(error) ? out : text;
}

/// "alhassan" without its article; empty when it has none.
std::string withoutArticle(const std::string& key) {
    constexpr std::size_t kLeastLeft = 3;
    const bool has = key.starts_with("al") || key.starts_with("el") || key.starts_with("il");
    return has && key.size() >= 2 + kLeastLeft ? key.substr(2) : std::string();
}

} // namespace

NameVeil::NameVeil(const std::vector<Person>& people, const std::string& anybody) {
    const auto put = [&](Instead& where, const std::string& key, const std::string& instead) {
        const auto [known, isNew] = where.try_emplace(key, instead);
        if (!isNew && known->second != instead) known->second = anybody;
    };
    for (const Person& person : people)
        for (const std::string& name : person.names)
            for (const UnicodeString& run : runsOf(wide(name))) {
                if (!isNamePart(run.char32At(0))) continue;
                if (isUnspaced(run.char32At(0))) put(unspaced_, narrow(composed(run)), person.instead);
                const std::string key = keyOf(run);
                if (key.size() < 2 || isParticle(key)) continue;
                put(instead_, key, person.instead);
                put(sounding_, soundOf(key), person.instead);
                if (!isLatin(run)) {
                    foreign_.insert(key);
                    if (const std::string bare = withoutArticle(key); !bare.empty())
                        put(instead_, bare, person.instead);
                }
            }
}

const std::string* NameVeil::at(std::string_view key) const {
    const auto found = instead_.find(key);
    return found == instead_.end() ? nullptr : &found->second;
}

/// A name and an ending behind it, or in the place of its last vowel.
const std::string* NameVeil::withEnding(const std::string& key) const {
    constexpr std::size_t kLongest = 4;
    for (std::size_t n = 1; n <= kLongest && n + 2 < key.size(); ++n) {
        const std::string stem = key.substr(0, key.size() - n);
        const std::string_view rest = std::string_view(key).substr(stem.size());
        const bool plain = rest == "s" || rest == "es";
        if (!isEnding(rest)) continue;
        if (stem.size() >= kShort || plain)
            if (const std::string* instead = at(stem)) return instead;
        for (const char vowel : std::string_view("aeiouy"))
            if (stem.size() + 1 >= kShort && isVowel(rest.front()) && stem.size() >= 3)
                if (const std::string* instead = at(stem + vowel)) return instead;
    }
    return nullptr;
}

/// Names and particles without a space between them, or a long name within a word: whose is the first.
const std::string* NameVeil::joinedOf(const std::string& key) const {
    std::vector<const std::string*> whose(key.size() + 1, nullptr); // of names that reach so far
    std::vector<bool> reached(key.size() + 1, false);
    reached[0] = true;
    for (std::size_t from = 0; from < key.size(); ++from) {
        if (!reached[from]) continue;
        for (std::size_t n = 2; from + n <= key.size(); ++n) {
            const std::string_view part = std::string_view(key).substr(from, n);
            const std::string* name = n > 2 ? at(part) : nullptr;
            if (!name && !isParticle(part)) continue;
            reached[from + n] = true;
            if (!whose[from + n]) whose[from + n] = whose[from] ? whose[from] : name;
        }
    }
    if (reached[key.size()] && whose[key.size()]) return whose[key.size()];
    for (std::size_t from = 0; from + kLongIn <= key.size(); ++from)
        for (std::size_t n = kLongIn; from + n <= key.size(); ++n)
            if (const std::string* name = at(std::string_view(key).substr(from, n))) return name;
    return nullptr;
}

/// What stands instead of a word; null when it is nobody's name.
const std::string* NameVeil::insteadOf(const std::string& word) const {
    const UnicodeString written = wide(word);
    const std::string key = keyOf(written);
    if (key.size() < 2 || isParticle(key)) return nullptr;
    if (const std::string* name = at(key)) return name;
    if (const std::string* name = withEnding(key)) return name;
    if (const std::string* name = joinedOf(key)) return name;
    const bool latin = isLatin(written);
    if (!latin)
        if (const std::string bare = withoutArticle(key); !bare.empty())
            if (const std::string* name = at(bare)) return name;
    if (latin && foreign_.empty()) return nullptr;
    const auto sound = sounding_.find(soundOf(key));
    return sound == sounding_.end() ? nullptr : &sound->second;
}

/// Names of scripts without spaces, wherever they stand.
std::string NameVeil::unspaced(std::string_view text) const {
    if (unspaced_.empty()) return std::string(text);
    std::string out = narrow(composed(wide(text)));
    for (const auto& [name, instead] : unspaced_)
        for (auto at = out.find(name); at != out.npos; at = out.find(name, at + instead.size()))
            out.replace(at, name.size(), instead);
    return out;
}

std::string NameVeil::operator()(std::string_view text) const {
    std::string out, last, between;
    bool ended = false; // the name before has an ending of its own
    for (const UnicodeString& run : runsOf(wide(unspaced(withoutAddresses(text))))) {
        if (!isNamePart(run.char32At(0))) {
            between += narrow(run);
            continue;
        }
        const UnicodeString ending = endingOf(run);
        const std::string* instead = insteadOf(narrow(UnicodeString(run, 0, run.length() - ending.length())));
        if (!instead) {
            out += between + narrow(run);
            last.clear();
        } else if (*instead == last && (between.empty() || between == " " || between == "-") && !ended) {
            out += narrow(ending);
        } else {
            out += between + *instead + narrow(ending);
            last = *instead;
        }
        ended = !ending.isEmpty();
        between.clear();
    }
    return out + between;
}

} // namespace jg
