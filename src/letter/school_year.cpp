#include "letter/school_year.h"

#include "words/reading_level.h"

namespace jg {

double schoolYearOf(const LetterModel& letter, const Words& words) {
    std::string all;
    for (const Message& sentence : readersSentences(letter)) {
        const std::string said = words(sentence);
        if (!said.empty()) all += said + (said.back() == '.' ? " " : ". "); // a title ends without one
    }
    return readingLevel(all, words.tag()).schoolYear;
}

} // namespace jg
