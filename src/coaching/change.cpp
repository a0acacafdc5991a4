// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/change.h"

#include "kinematics/estimate.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace jg {

double smallestRealChange(double sd1, double sd2) {
    return kSdsOf95 * std::hypot(sd1, sd2);
}

bool reallyChanged(double before, double sdBefore, double after, double sdAfter) {
    return std::abs(after - before) > smallestRealChange(sdBefore, sdAfter);
}

double studentT95(std::size_t freedom) {
    static constexpr std::array t = {12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228};
    return t.at(std::clamp<std::size_t>(freedom, 1, t.size()) - 1);
}

OwnSpread OwnSpread::with(double otherSd, int pitches) const {
    if (pitches < 2) return *this;
    const auto more = static_cast<std::size_t>(pitches - 1);
    const auto all = static_cast<double>(freedom + more);
    return {
        std::sqrt((static_cast<double>(freedom) * sd * sd + static_cast<double>(more) * otherSd * otherSd) /
                  all),
        freedom + more};
}

double OwnSpread::between() const {
    return freedom == 0 ? 0 : studentT95(freedom) * std::numbers::sqrt2 * sd;
}

double changedByChance(std::size_t compared) {
    return 0.05 * static_cast<double>(compared);
}

bool isReal(Trend trend) {
    return trend == Trend::Better || trend == Trend::Worse || trend == Trend::Changed;
}

namespace {

/// How far outside the target; 0 inside, or when it asks nothing.
double outside(const Target& target, double value) {
    switch (target.type) {
    case TargetType::AtLeast:
        return std::max(0.0, target.x - value);
    case TargetType::AtMost:
        return std::max(0.0, value - target.x);
    case TargetType::Band:
        return std::max({0.0, target.x - value, value - target.y});
    case TargetType::Options:
    case TargetType::Any:
    case TargetType::Record:
        break;
    }
    return 0;
}

} // namespace

Trend trendOf(const Target& target, double before, double sdBefore, double after, double sdAfter,
              const OwnSpread& spread) {
    if (!reallyChanged(before, sdBefore, after, sdAfter)) return Trend::InsideError;
    // What error and spread add up to: both are by chance, and independent.
    if (std::abs(after - before) <= std::hypot(smallestRealChange(sdBefore, sdAfter), spread.between()))
        return Trend::InsideSpread;
    const double was = outside(target, before), is = outside(target, after);
    if (is < was) return Trend::Better;
    return is > was ? Trend::Worse : Trend::Changed;
}

Message nameOf(Trend trend) {
    static constexpr std::array<const char*, 5> ids = {"trend.inside-error", "trend.better", "trend.worse",
                                                       "trend.changed", "trend.inside-spread"};
    return msg(ids.at(static_cast<std::size_t>(trend)));
}

} // namespace jg
