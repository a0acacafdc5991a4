// SPDX-License-Identifier: GPL-3.0-or-later
// What the letter says, in words; how it looks is the letter room's affair.
#pragma once

#include "review/record/audience.h"
#include "review/record/people.h"
#include "review/record/read_by.h"
#include "review/tell/number_line.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

struct LetterCorrection {
    std::string finding;
    Message title;
    Message number; ///< the number in plain words; empty for an item without one
    Message why;
    Message weighed; ///< to parents: what may be behind it, what was ruled out, what would tell
    Message feel;
    Message size; ///< how much it is, or that time brings it; empty while the coach said nothing
    Message need; ///< what kind of work it is and why; empty while that is not known
    Message caption;
    std::int64_t frame = 0;
    int delivery = 1;                    ///< on which the frame lies
    std::optional<NumberLine> line = {}; ///< of the measure whose number is told
    bool operator==(const LetterCorrection&) const = default;
};

/// A moment of another day beside that of this review.
struct LetterThen {
    StopId stop; ///< that shows the two
    Message title;
    std::vector<Message> changes; ///< in numbers, a sentence each
    Message then, now;            ///< under the two pictures
    int delivery = 1;             ///< of this review
    std::int64_t frame = 0, thenFrame = 0;
    /// What the two pictures are called among a letter's stills.
    std::string thenKey() const { return "then:" + stop.value; }
    std::string nowKey() const { return "now:" + stop.value; }
    bool operator==(const LetterThen&) const = default;
};

/// A place where the coach's own words stand.
struct OwnPlace {
    Message generated;  ///< what the letter would say
    bool stale = false; ///< that was something else when the coach wrote
    bool operator==(const OwnPlace&) const = default;
};

struct LetterWeekRow {
    Message days;
    Message what;
    Message how;
    Message dose;
    bool ball = false;
    Message body; ///< "Lower body"
    bool lower = false;
    std::vector<int> weekdays; ///< 0 = Monday
    bool on(int weekday) const;
    bool operator==(const LetterWeekRow&) const = default;
};

/// The whole letter as messages: the reader's language is chosen where it is written.
struct LetterModel {
    std::string from;
    std::string mark = {}; ///< of the house, as PNG; empty = none
    Message about;         ///< film, conditions
    Message greeting;
    Message foreword; ///< to parents: who is meant, and how a number is read
    std::string opening;
    Message summary; ///< where nothing is to be worked on: that nothing is wrong, or that nothing is sure
    std::vector<Message> cautions; ///< pain, coming back from injury: they open the letter
    std::vector<Message> keeps;
    std::vector<std::string> kept; ///< the findings of `keeps`, one each
    std::vector<LetterCorrection> corrections;
    std::vector<LetterThen> thens;
    std::vector<LetterWeekRow> week;
    std::vector<Message> weekNotes; ///< what guidance says of throwing
    Message nextLook;
    Message sinceHeading;       ///< "Since October"; empty when there is nothing to look back on
    std::vector<Message> since; ///< what became better, was kept, slipped
    Date writtenOn{};
    std::optional<Date> nextLookOn;
    std::vector<Message> notSeen;
    Message closing;
    std::vector<Message> forGrownUps; ///< beside a child's letter: what guidance says, and the caution whole
    std::string signature;
    std::map<std::string, OwnPlace> own; ///< by LetterSentence::key

    /// The part of the body that a day is for, 0 = Monday; empty on a day of rest.
    Message bodyOn(int weekday) const;
    bool operator==(const LetterModel&) const = default;
};

/// Who writes; from the library's settings.
struct House {
    std::string place;
    std::string coach;
    std::string coachEmail;
    std::string mark = {}; ///< its own mark as PNG; empty = none
    /// The coach looked up the figures of the guidance on pitches: only then a family is told them.
    bool guidanceConfirmed = false;
};

/// Builds the letter's text. `today` is the day of writing. Pure; any thread.
LetterModel writeLetter(const Review& review, const Playbook& playbook, const Assessment& a,
                        const Athlete& athlete, const Submission& submission, const House& house,
                        bool painElsewhere = false);

/// A number and its target as a family sees them without a sentence beside: a number below zero without its
/// sign (its side is told in words), and no target that needs one. Pure.
MeasureRow asFamilySees(const MeasureRow& row);

/// What to keep, with its number where there is one. Pure.
Message keepLine(const Assessment& a, const Playbook& playbook, const std::string& finding, const ReadBy& by);

/// The measure whose number tells of a finding: its own; of an item the one that tells the same, unless it
/// lies on the other side. The finding itself when there is none. Pure.
std::string toldMeasure(const Playbook& playbook, const Assessment& a, const std::string& finding);

/// A correction in the letter's words. Pure.
LetterCorrection correctionOf(const Review& review, const Playbook& playbook, const Assessment& a,
                              const std::string& finding, const ReadBy& by);

struct FindingSince;

/// Tells in a letter what became of an earlier review: what is sure only, a sentence each. `name` is that of
/// a baseline; empty = the last letter. Pure.
void tellSince(LetterModel& letter, const Playbook& playbook, const std::string& name, Date when,
               const std::vector<FindingSince>& followed);

/// What the reader themselves is to read and understand, sentence by sentence: not what stands there for
/// grown-ups, nor what could not be seen. Pure.
std::vector<Message> readersSentences(const LetterModel& letter);

} // namespace jg
