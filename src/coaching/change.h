// SPDX-License-Identifier: GPL-3.0-or-later
// Has it really changed? Statistics of repeated measuring.
#pragma once

#include "coaching/target.h"

#include <cstddef>
#include <optional>
#include <string_view>

namespace jg {

/// Smallest real change between two values with standard errors sd1 and sd2, at 95 %:
/// 1.96 x sqrt(sd1^2 + sd2^2); with both equal to the SEM this is 1.96 x sqrt(2) x SEM (Weir 2005).
double smallestRealChange(double sd1, double sd2);

/// True when the difference is larger than the smallest real change.
bool reallyChanged(double before, double sdBefore, double after, double sdAfter);

/// Two-sided 95 % points of Student's t (Student 1908; values from memory), for 1 to 10 degrees of freedom;
/// that of 10 for more, which is on the safe side.
double studentT95(std::size_t freedom);

/// How far an athlete's own pitches scatter: their typical error (Weir 2005), pooled over reviews.
struct OwnSpread {
    double sd = 0;
    std::size_t freedom = 0; ///< pitches less reviews

    /// With the pitches of another review: `sd` between `pitches` of them. Fewer than two add nothing.
    OwnSpread with(double otherSd, int pitches) const;
    /// The most two single pitches lie apart by that alone, 19 times of 20; 0 while nothing is known.
    double between() const;
};

/// What a change means for what is wanted.
enum class Trend { InsideError, Better, Worse, Changed, InsideSpread };

/// Better when it came nearer to the target, worse when it went further off; changed when the target asks
/// nothing, is met both times, or is missed as far on the other side. Beyond the error but not beyond what
/// the athlete's pitches scatter on one day it is inside that spread. `target` is in the unit of the numbers.
/// Pure. Source: Weir 2005 for what counts as a change; the direction is our own choice.
Trend trendOf(const Target& target, double before, double sdBefore, double after, double sdAfter,
              const OwnSpread& spread = {});

/// True for one that is beyond error and spread.
bool isReal(Trend trend);

/// "inside the error", "better", "worse", "changed", "inside the own spread".
Message nameOf(Trend trend);

/// Of so many numbers compared, how many would seem changed by chance alone: 1 in 20.
double changedByChance(std::size_t compared);

} // namespace jg
