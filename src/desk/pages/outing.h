// SPDX-License-Identifier: GPL-3.0-or-later
// One outing: a measure against the number of the pitch, and against where the ball went.
#pragma once

#include "coaching/season.h"
#include "library/store.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// One pitch with its number in the outing.
struct OutingPitch {
    ReviewId review;
    SubmissionId submission;
    int delivery = 1;
    std::optional<std::int64_t> frame; ///< where the measure is seen
    int number = 0;                    ///< of the pitch in the outing
    double value = 0, half95 = 0;
    bool off = false; ///< beyond its target
    Conditions conditions;
};

/// Pitches that went to one place.
struct WentRow {
    Went went = Went::Unknown;
    int count = 0;
    double mean = 0;
};

struct Outing {
    Date on{};
    std::string measure, unit;
    std::vector<OutingPitch> pitches;      ///< by number
    std::optional<ChangePoint> change;     ///< places in `pitches`
    std::optional<Association> withNumber; ///< rises or falls over the outing
    std::vector<WentRow> went;             ///< known places only, the most frequent first
    Message inWords; ///< what can be told: the pitch from which it changed, or that there are too few
};

inline constexpr std::size_t kMostOutings = 3; ///< own choice

/// The newest day with two numbered pitches of a measure or more: at most kMostOutings of its measures, those
/// that are off their target most often first. Association only, never a cause. Pure.
std::vector<Outing> newestOutings(const std::vector<ReviewOfAthlete>& reviews, const Playbook& playbook);

} // namespace jg
