// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/roll.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

namespace {

bool isUpright(ImagePoint v) {
    return std::abs(v.y) > std::abs(v.x);
}

/// How far an upright line at `p` from the centre leans, clockwise: seen from above all of them meet in one
/// point below, `focalPx` over the pitch's tangent from the centre.
double leanDeg(ImagePoint p, double pitchDeg, double focalPx) {
    const double down = std::tan(pitchDeg / kDegPerRad);
    return std::atan2(p.x * down, focalPx - p.y * down) * kDegPerRad;
}

} // namespace

Estimate rollFromLine(ClickedPoint from, ClickedPoint to) {
    const ImagePoint v = to.at - from.at;
    const double run = length(v);
    if (run == 0) return {0, 0};
    // Fold the line's direction to the nearer axis, so that its sense does not matter.
    const double angle =
        isUpright(v) ? -std::atan2(v.x, v.y) * kDegPerRad : std::atan2(v.y, v.x) * kDegPerRad;
    const double folded = std::remainder(angle, 180.0);
    const double sd = std::hypot(from.sigmaPx, to.sigmaPx) / run * kDegPerRad;
    return {folded, sd};
}

Estimate rollFromPlumb(ClickedPoint from, ClickedPoint to, const CameraPlace& camera, double focalPx) {
    const Estimate seen = rollFromLine(from, to);
    if (!isUpright(to.at - from.at) || focalPx <= 0) return seen;
    const ImagePoint middle{(from.at.x + to.at.x) / 2, (from.at.y + to.at.y) / 2};
    const auto lean = [&](double pitchDeg) {
        return leanDeg(rotated(middle - camera.centre, -seen.value), pitchDeg, focalPx);
    };
    const double here = lean(camera.pitchDeg.value);
    const double byPitch = lean(camera.pitchDeg.value + camera.pitchDeg.sd) - here;
    return {seen.value - here, std::hypot(seen.sd, byPitch)};
}

} // namespace jg
