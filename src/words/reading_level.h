// SPDX-License-Identifier: GPL-3.0-or-later
// How easy a text is to read.
#pragma once

#include <string_view>

namespace jg {

struct ReadingLevel {
    double schoolYear = 0; ///< in which such a text is read with ease; below 1 = in the first
    int words = 0, sentences = 0, syllables = 0;
};

/// English: Kincaid, Fishburne, Rogers and Chissom 1975, 0.39 words a sentence + 11.8 syllables a word -
/// 15.59. Spanish ("es"): Crawford 1989, -0.205 sentences + 0.049 syllables in a hundred words - 3.407. Both
/// from memory. Syllables are counted by the letters; a number is read as one word of two. Zero for a text
/// without words. Pure.
ReadingLevel readingLevel(std::string_view text, std::string_view language);

/// Syllables of one word, one at least. Pure.
int syllablesIn(std::string_view word, std::string_view language);

} // namespace jg
