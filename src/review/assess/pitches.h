// SPDX-License-Identifier: GPL-3.0-or-later
// One measure on several pitches: mean, spread, and the one that stands out.
#pragma once

#include "coaching/target.h"
#include "kinematics/measure.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A measure's number on one delivery of a review.
struct DeliveryValue {
    int number = 1; ///< of the delivery
    int pitch = 1;
    View view = View::Open;
    MeasureValue value;             ///< has a number
    std::optional<Verdict> verdict; ///< nothing when it can't be judged
    bool standsOut = false;         ///< by spreadOf()
};

/// A measure over the pitches it was measured on, in the unit of its numbers.
struct PitchSpread {
    int pitches = 0;
    int judged = 0;    ///< of them with a verdict
    int offTarget = 0; ///< of those, not to be kept as they are
    double mean = 0;
    double sd = 0;     ///< between pitches, n - 1 in the divisor
    double half95 = 0; ///< of the mean: Student's t on the spread, and never less than one measurement's own
    std::string unit;
};

/// Mean and spread over pitches; a pitch seen by several films counts once, by its surest number. Marks the
/// numbers that stand out: three pitches and more, and further from the mean of the others than three times
/// what their spread and its own error allow (own choice). Nothing for fewer than two pitches or when units
/// differ. Pure.
std::optional<PitchSpread> spreadOf(std::vector<DeliveryValue>& values);

/// "3 pitches: 131° ± 6 on average, spread 4°; off target in 2. Pitch 2 stands out with 120°."
Message pitchesInWords(const PitchSpread& spread, const std::vector<DeliveryValue>& values);

} // namespace jg
