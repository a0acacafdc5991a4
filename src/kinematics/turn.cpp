// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/turn.h"

#include "kinematics/geometry.h"
#include "kinematics/propagation.h"

#include <algorithm>
#include <cmath>

namespace jg {

Turn turnFromRatio(Estimate ratio, TurnSeen seen) {
    if (!std::isfinite(ratio.value) || !std::isfinite(ratio.sd)) return {std::nan(""), 0, 0};
    const auto turn = [&](double r) {
        const double clamped = std::clamp(r, 0.0, 1.0);
        return (seen == TurnSeen::FromSide ? std::acos(clamped) : std::asin(clamped)) * kDegPerRad;
    };
    // Wider than it can be: by so much at least the widths are off.
    const double over = std::max(0.0, ratio.value - 1), seenAt = ratio.value - over;
    const double half = std::hypot(ratio.half95(), over);
    const double one = turn(seenAt - half), other = turn(seenAt + half);
    // From the front a closed line is no wider than its error: a width is a size.
    const double size = seen == TurnSeen::FromFront ? withoutFold(ratio.value, ratio.sd) : ratio.value;
    return {turn(size), std::min(one, other), std::max(one, other)};
}

Turn signedTurnFromRatio(Estimate ratio) {
    if (!std::isfinite(ratio.value) || !std::isfinite(ratio.sd)) return {std::nan(""), 0, 0};
    const auto turn = [](double r) { return std::asin(std::clamp(r, -1.0, 1.0)) * kDegPerRad; };
    return {turn(ratio.value), turn(ratio.value - ratio.half95()), turn(ratio.value + ratio.half95())};
}

} // namespace jg
