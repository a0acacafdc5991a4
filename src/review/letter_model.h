// What the letter says, in words; how it looks is the letter room's affair.
#pragma once

#include "review/assess.h"
#include "review/people.h"

#include <string>
#include <vector>

namespace jg {

struct LetterCorrection {
    std::string finding;
    std::string title;
    std::string number; ///< the number in plain words; empty for an item without one
    std::string why;
    std::string feel;
    std::string caption;
    std::int64_t frame = 0;
    int delivery = 1; ///< on which the frame lies
};

struct LetterWeekRow {
    std::string days;
    std::string what;
    std::string how;
    std::string dose;
    bool ball = false;
};

/// The whole letter as text.
struct LetterModel {
    std::string from;
    std::string about; ///< film, conditions
    std::string greeting;
    std::string opening;
    std::string caution; ///< with pain: opens the letter
    std::vector<std::string> keeps;
    std::vector<LetterCorrection> corrections;
    std::vector<LetterWeekRow> week;
    std::string nextLook;
    std::vector<std::string> notSeen;
    std::string closing;
    std::string signature;
};

/// Who writes; from the library's settings.
struct House {
    std::string place;
    std::string coach;
    std::string coachEmail;
};

/// Builds the letter's text. `today` is the day of writing. Pure; any thread.
LetterModel writeLetter(const Review& review, const Playbook& playbook, const Assessment& a,
                        const Athlete& athlete, const Submission& submission, const House& house);

/// Number with unit for a reader, rounded, with a minus that is no hyphen. Unit deg | % | ms | in | x.
std::string numberInWords(double value, const std::string& unit);
/// Half the 95 % interval as shown beside the number, never less than its last digit.
std::string errorInWords(const MeasureValue& value);

} // namespace jg
