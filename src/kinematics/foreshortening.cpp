// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/foreshortening.h"

#include "kinematics/geometry.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr double kShorter = 0.93; // own choice, see the header

bool sameLimb(Landmark a, Landmark b, Landmark from, Landmark to) {
    return (a == from && b == to) || (a == to && b == from);
}

Message warningOf(const LimbTurn& limb) {
    const double shown = std::clamp(limb.ratio.value, 0.0, 1.0);
    return msg("foreshortening.turned", {{"from", info(limb.from).name()},
                                         {"to", info(limb.to).name()},
                                         {"percent", std::lround(100 * (1 - shown))},
                                         {"position", info(limb.longestAt).name()},
                                         {"degrees", std::lround(std::acos(shown) * kDegPerRad)}});
}

/// Widens by one joint whose points begin at `first`; `part` is what it adds to the measure.
void widenByJoint(const MeasureDefinition& m, const MeasureInput& in, std::size_t first, double part,
                  MeasureValue& value) {
    const LimbTurn* one = turnedLimb(in, m.slots[first], m.slots[first + 1]);
    const LimbTurn* two = turnedLimb(in, m.slots[first + 2], m.slots[first + 1]);
    if (!one && !two) return;
    const double seen =
        jointAngleDeg(in.points.at(m.slots[first].name).at, in.points.at(m.slots[first + 1].name).at,
                      in.points.at(m.slots[first + 2].name).at);
    const auto [least, largest] =
        anglesInSpaceDeg(seen, one ? one->ratio.value : 1, two ? two->ratio.value : 1);
    const double down = part > 0 ? least - seen : seen - largest,
                 up = part > 0 ? largest - seen : seen - least;
    value.low95 += std::min(0.0, down);
    value.high95 += std::max(0.0, up);
    for (const LimbTurn* limb : {one, two})
        if (limb) value.warnings.push_back(warningOf(*limb));
}

} // namespace

const LimbTurn* turnedLimb(const MeasureInput& in, const Slot& a, const Slot& b) {
    for (const LimbTurn& limb : in.limbs)
        if (limb.at == a.at && limb.at == b.at && sameLimb(a.landmark, b.landmark, limb.from, limb.to))
            return &limb;
    return nullptr;
}

std::vector<LimbTurn> turnedLimbs(std::span<const SeenLimb> seen) {
    std::vector<LimbTurn> turned;
    for (const SeenLimb& limb : seen) {
        const SeenLimb* longest = &limb;
        for (const SeenLimb& other : seen)
            if (sameLimb(other.from, other.to, limb.from, limb.to) &&
                other.lengthPx.value > longest->lengthPx.value)
                longest = &other;
        if (longest == &limb || longest->lengthPx.value <= 0) continue;
        const double ratio = limb.lengthPx.value / longest->lengthPx.value;
        const double sd =
            std::hypot(limb.lengthPx.sd, ratio * longest->lengthPx.sd) / longest->lengthPx.value;
        if (ratio < kShorter && ratio + 2 * sd < 1)
            turned.push_back({limb.from, limb.to, limb.at, {ratio, sd}, longest->at});
    }
    return turned;
}

std::pair<double, double> anglesInSpaceDeg(double seenDeg, double first, double second) {
    const double r1 = std::clamp(first, 0.0, 1.0), r2 = std::clamp(second, 0.0, 1.0);
    const double flat = r1 * r2 * std::cos(seenDeg / kDegPerRad);
    const double deep = std::sqrt((1 - r1 * r1) * (1 - r2 * r2));
    const auto angle = [](double c) { return std::acos(std::clamp(c, -1.0, 1.0)) * kDegPerRad; };
    return {angle(flat + deep), angle(flat - deep)};
}

void widenForTurnedLimbs(const MeasureDefinition& m, const MeasureInput& in, MeasureValue& value) {
    if (in.limbs.empty() || !value.value) return;
    // Past straight a joint is told from its other side.
    if (m.kind == MeasureKind::JointAngle) widenByJoint(m, in, 0, *value.value > 180 ? -1 : 1, value);
    if (m.kind == MeasureKind::ChangeOfAngle) {
        widenByJoint(m, in, 0, -1, value);
        widenByJoint(m, in, 3, 1, value);
    }
    value.sd = (value.high95 - value.low95) / (2 * kSdsOf95);
}

} // namespace jg
