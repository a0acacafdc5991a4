// SPDX-License-Identifier: GPL-3.0-or-later
// A number over months, and within one outing: lines that stray dots don't turn, and when something changed.
#pragma once

#include "coaching/change.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace jg {

/// A number on a day.
struct Dated {
    double day = 0; ///< days from any fixed day
    double value = 0;
    double sd = 0; ///< of this measurement
};

/// A straight line through dated numbers that a few stray ones don't turn.
struct RobustLine {
    double middleDay = 0, level = 0; ///< a point it passes through: the medians
    double perDay = 0, low95 = 0, high95 = 0;

    double at(double day) const { return level + (day - middleDay) * perDay; }
    /// Its direction is beyond chance.
    bool sure() const { return low95 > 0 || high95 < 0; }
};

/// Median of the slopes of all pairs, with the interval that Kendall's rank test gives it. Source: Theil
/// 1950; Sen, Journal of the American Statistical Association 63 (1968) 1379-1389. Nothing for fewer than
/// four days, where the interval has no ends. Pure.
std::optional<RobustLine> robustLine(const std::vector<Dated>& points);

/// The first of the points, by time, from which on every one differs from the first point of all beyond error
/// and spread, and to the same side: since then the change is sure. The last point decides, so that without
/// a change at most 5 % are called one, however many points there are (own choice). Pure.
std::optional<std::size_t> firstSureChange(const std::vector<Dated>& points, const OwnSpread& spread = {});

/// Where in a row of numbers their level changed.
struct ChangePoint {
    std::size_t at = 0;            ///< the first number of the new level, most likely
    std::size_t low = 0, high = 0; ///< 95 %: it lies between these, both included
    double before = 0, after = 0;  ///< the two levels
};

inline constexpr std::size_t kFewestForChangePoint = 10; ///< own choice: fewer pitches can't tell

/// The one change of level in numbers that scatter alike before and after, in the order they were taken.
/// Nothing when there are too few, or when a change this large comes by chance once in twenty times: told by
/// putting the numbers in 999 other orders. Source: posterior of the place under flat priors (as Smith,
/// Biometrika 62 (1975) 407-416, from memory); the test by permutation, textbook. Pure: the orders are the
/// same every time.
std::optional<ChangePoint> changePoint(const std::vector<double>& values);

/// Rank correlation of two rows of numbers, -1..1, with the chance that shuffled ones lie as far from 0.
/// An association, never a cause. Source: Spearman 1904; by 999 permutations. Nothing for fewer than five
/// pairs or where one row is constant. Pure.
struct Association {
    double rank = 0;
    double chance = 1;
    std::size_t pairs = 0;
};
std::optional<Association> associationOf(const std::vector<double>& a, const std::vector<double>& b);

} // namespace jg
