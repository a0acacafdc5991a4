// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/school_year.h"

#include "words/jargon.h"
#include "words/reading_level.h"

namespace jg {

namespace {

std::string allOf(const LetterModel& letter, const Words& words) {
    std::string all;
    for (const Message& sentence : readersSentences(letter)) {
        const std::string said = words(sentence);
        if (!said.empty()) all += said + (said.back() == '.' ? " " : ". "); // a title ends without one
    }
    return all;
}

} // namespace

double schoolYearOf(const LetterModel& letter, const Words& words) {
    return readingLevel(allOf(letter, words), words.tag()).schoolYear;
}

int jargonOf(const LetterModel& letter, const Words& words) {
    return jargonIn(allOf(letter, words), words.tag());
}

} // namespace jg
