// SPDX-License-Identifier: GPL-3.0-or-later
// How hard a letter reads.
#pragma once

#include "review/tell/letter_model.h"
#include "words/words.h"

namespace jg {

/// The school year from which readersSentences() are easy, in the language of `words`: readingLevel().
double schoolYearOf(const LetterModel& letter, const Words& words);
/// Words of the trade in the same sentences: jargonIn().
int jargonOf(const LetterModel& letter, const Words& words);

} // namespace jg
