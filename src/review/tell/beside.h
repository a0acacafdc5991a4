// SPDX-License-Identifier: GPL-3.0-or-later
// An earlier delivery beside a stop's own: where the two are locked, and what has changed between them.
#pragma once

#include "review/compare/juxta.h"
#include "review/tell/letter_model.h"

#include <optional>
#include <set>
#include <string>
#include <vector>

namespace jg {

/// So many comparisons stand in one letter: own choice, a page of them.
inline constexpr std::size_t kMostThens = 3;

/// How another delivery is put beside a frame of `own`: locked at the position of that frame, else at the
/// position both have that lies nearest to it. Nothing when they share none. Pure.
std::optional<Beside> besideAt(const DeliveryMarks& own, std::int64_t frame, const JuxtaEntry& other);

/// Two deliveries that are compared: the athlete's of another day, and the stop's own.
struct ThenAndNow {
    JuxtaEntry then, now;
};

/// The measure that a finding's picture shows: the one whose number is told (toldMeasure()), and never that
/// of something else; the finding itself when there is none. Pure.
std::string picturedMeasure(const Playbook& playbook, const Assessment& a, const std::string& finding);

/// What a stop is about in numbers that both deliveries have: the measure its picture shows; of one
/// without a finding all at the position where the two are locked, what really changed first. Pure.
std::vector<JuxtaChange> besideChanges(const Stop& stop, const ThenAndNow& both, const Playbook& playbook,
                                       const std::set<std::string>& overruled = {});

/// "29 September", or what the coach calls that delivery; of the same day the delivery's number. Pure.
Message thenCaption(const JuxtaEntry& then, const JuxtaEntry& now);
/// The day of the stop's own delivery, or its number beside another of the same day. Pure.
Message nowCaption(const JuxtaEntry& then, const JuxtaEntry& now);

/// What has changed as a family reads it, at most `most` numbers: "Front knee at plant: 29 September 125, now
/// 111. That is a real change, towards what we want." `when` is thenCaption(). Says so when nothing was
/// measured in both. Pure.
std::vector<Message> changesInWords(const std::vector<JuxtaChange>& changes, const Playbook& playbook,
                                    const Message& when, std::size_t most);

/// The same with the grade of the stop's item first, where both were looked at: "By eye, Hand brings the
/// elbow up: 29 September 2 of 5, now 4 of 5." Pure.
std::vector<Message> toldChanges(const Stop& stop, const ThenAndNow& both,
                                 const std::vector<JuxtaChange>& changes, const Playbook& playbook,
                                 std::size_t most);

/// Tells in the letter what a stop shows of the two: at most kMostThens stops, two numbers each. Pure.
void tellBeside(LetterModel& letter, const Playbook& playbook, const Stop& stop, const ThenAndNow& both,
                const std::set<std::string>& overruled);

/// In short, under the film's picture: "Front knee: 29 September 125, now 111, really better". Empty without
/// a number that both have. Pure.
Message changeInShort(const std::vector<JuxtaChange>& changes, const Playbook& playbook, const Message& when);

} // namespace jg
