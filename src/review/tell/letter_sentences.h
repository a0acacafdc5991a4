// SPDX-License-Identifier: GPL-3.0-or-later
// The letter's sentences by name, and those that the coach wrote in their place.
#pragma once

#include "review/tell/letter_model.h"
#include "review/tell/send_check.h"

#include <string>
#include <vector>

namespace jg {

/// One sentence of the letter that may be changed. Cautions may not: they are there for the reader's arm.
struct LetterSentence {
    std::string key;    ///< "why:front-knee"; the same in the next letter
    Message about;      ///< of what it speaks: the correction's title; empty for the letter as a whole
    Message text;       ///< as it stands in the letter
    bool own = false;   ///< the coach's words
    bool stale = false; ///< the coach's, and what stood there has changed since
};

/// In the order of the letter; empty ones are left out. Pure.
std::vector<LetterSentence> sentencesOf(const LetterModel& letter);

/// Puts the coach's own sentences in their places; what the letter would say itself is kept beside them.
/// Pure.
void putOwnSentences(LetterModel& letter, const std::map<std::string, OwnSentence>& own);

/// A stop for each of the coach's sentences that was written when the letter said something else: a number in
/// it may be an old one. Pure.
std::vector<SendProblem> staleSentences(const LetterModel& letter);

/// The coach's own sentences that were written in another language than the reader's; nothing when all are in
/// theirs. A thought, no stop: names and short words fit every language. Pure.
std::optional<SendProblem> inOtherLanguage(const Plan& plan, Language language);

/// What the letter would say itself in a place; nothing for a place that it has not. Pure.
std::optional<Message> generatedSentence(const LetterModel& letter, const std::string& key);

} // namespace jg
