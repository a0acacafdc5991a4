// SPDX-License-Identifier: GPL-3.0-or-later
// By whom a review is read.
#pragma once

#include "review/record/audience.h"

namespace jg {

struct Athlete;
struct Review;

/// All that a sentence depends on beside what was found.
struct ReadBy {
    Audience reader = Audience::Player;
    int age = 0;        ///< of the athlete; chooses the cue
    double heightM = 0; ///< of the athlete; 0 = not known
    /// Which of several wordings of a usual sentence is said: by the review, so that two letters of one
    /// season are not alike and one letter is told alike everywhere.
    unsigned wording = 0;
};

/// How many wordings a usual sentence has.
inline constexpr unsigned kWordings = 3;

/// As the coach chose, else by age: under twelve young, else the player. Pure.
ReadBy readBy(const Review& review, const Athlete& athlete);

} // namespace jg
