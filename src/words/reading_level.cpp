// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/reading_level.h"

#include "words/icu_text.h"

#include <unicode/brkiter.h>
#include <unicode/uchar.h>

#include <memory>

namespace jg {

namespace {

using icu::UnicodeString;

UnicodeString small(std::string_view text) {
    return wide(text).toLower();
}

bool isIn(char16_t c, std::u16string_view letters) {
    return letters.find(c) != letters.npos;
}

/// Groups of vowels, without endings that are not spoken.
int englishSyllables(const UnicodeString& w) {
    constexpr std::u16string_view kVowels = u"aeiouy";
    int count = 0;
    bool before = false;
    for (int32_t i = 0; i < w.length(); ++i) {
        const bool vowel = isIn(w[i], kVowels);
        count += vowel && !before;
        before = vowel;
    }
    const auto ends = [&](const char16_t* with) { return w.endsWith(UnicodeString(with)); };
    const bool spokenE = ends(u"le") && w.length() > 2 && !isIn(w[w.length() - 3], kVowels); // ta-ble
    if (ends(u"e") && !ends(u"ee") && !spokenE) --count;
    if (ends(u"ed") && w.length() > 3 && !isIn(w[w.length() - 3], u"dtaeiou")) --count; // leaned, not landed
    if (ends(u"es") && w.length() > 3 && !isIn(w[w.length() - 3], u"sxzcghaeiou"))
        --count; // shoulders: comes
    return count;
}

/// Strong vowels make syllables, weak ones join them, unless they carry the accent.
int spanishSyllables(const UnicodeString& w) {
    constexpr std::u16string_view kStrong = u"aeoáéó", kWeak = u"iuü", kAccentedWeak = u"íú";
    int count = 0;
    char16_t last = 0; // s, w or a: the kind of vowel right before
    for (int32_t i = 0; i < w.length(); ++i) {
        const char16_t c = w[i];
        const char16_t kind = isIn(c, kStrong)         ? u's'
                              : isIn(c, kAccentedWeak) ? u'a'
                              : isIn(c, kWeak)         ? u'w'
                                                       : u'\0';
        const bool silent = c == u'u' && i > 0 && (w[i - 1] == u'q' || w[i - 1] == u'g') &&
                            i + 1 < w.length() && isIn(w[i + 1], u"eiéí");
        if (silent) continue;
        if (kind == u's') count += last != u'w';
        if (kind == u'w') count += last == 0 || last == u'a';
        if (kind == u'a') ++count;
        // "ia" is one: its weak vowel was counted already. "ea" are two.
        last = kind;
    }
    return count;
}

template <typename Visit>
void eachPiece(icu::BreakIterator& pieces, const UnicodeString& text, const Visit& visit) {
    pieces.setText(text);
    for (int32_t from = pieces.first(), to = pieces.next(); to != icu::BreakIterator::DONE;
         from = to, to = pieces.next())
        visit(text.tempSubStringBetween(from, to), pieces.getRuleStatus());
}

} // namespace

int syllablesIn(std::string_view word, std::string_view language) {
    const UnicodeString w = small(word);
    return std::max(1, language == "es" ? spanishSyllables(w) : englishSyllables(w));
}

ReadingLevel readingLevel(std::string_view text, std::string_view language) {
    constexpr int kOfNumber = 2;
    ReadingLevel level;
    UErrorCode error = U_ZERO_ERROR;
    const icu::Locale locale(std::string(language).c_str());
    const std::unique_ptr<icu::BreakIterator> words(icu::BreakIterator::createWordInstance(locale, error)),
        sentences(icu::BreakIterator::createSentenceInstance(locale, error));
    if (U_FAILURE(error)) return level;
    const UnicodeString all = wide(text);
    eachPiece(*sentences, all, [&](const UnicodeString& sentence, int32_t) {
        const int before = level.words;
        eachPiece(*words, sentence, [&](const UnicodeString& word, int32_t kind) {
            if (kind >= UBRK_WORD_LETTER) {
                level.syllables += syllablesIn(narrow(word), language);
                ++level.words;
            } else if (kind >= UBRK_WORD_NUMBER) {
                level.syllables += kOfNumber;
                ++level.words;
            }
        });
        level.sentences += level.words > before;
    });
    if (level.words == 0) return level;
    const double n = level.words;
    level.schoolYear = language == "es"
                           ? -0.205 * 100 * level.sentences / n + 0.049 * 100 * level.syllables / n - 3.407
                           : 0.39 * n / level.sentences + 11.8 * level.syllables / n - 15.59;
    return level;
}

} // namespace jg
