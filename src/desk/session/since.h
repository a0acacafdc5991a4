// SPDX-License-Identifier: GPL-3.0-or-later
// The review that a later one is compared with by itself, and what became of it.
#pragma once

#include "library/store.h"
#include "review/tell/follow_up.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// An earlier review of an athlete, as a later one looks back on it.
struct LookBack {
    std::string name; ///< of the baseline; empty = the last letter before
    Date when{};
    PastReview past;
    std::vector<std::string> named; ///< strengths that its letter named
};

/// The coach's first baseline that is another review, else the last one sent before `now`. Nothing when there
/// is none, or its film is gone. `all` are the athlete's reviews by date. Errors: those of reading the store.
Result<std::optional<LookBack>> lookBackFrom(Store& store, const Playbook& playbook, const Athlete& athlete,
                                             const std::vector<ReviewOfAthlete>& all, const ReviewId& now,
                                             Date on);

/// What became of it by `now`: of all strengths those that the letter named, and whatever got worse. Pure.
std::vector<FindingSince> becameOf(const LookBack& back, const JuxtaEntry& now);

} // namespace jg
