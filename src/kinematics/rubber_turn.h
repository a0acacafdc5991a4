// SPDX-License-Identifier: GPL-3.0-or-later
// How far a camera was turned from square, from the shape in which it shows the rubber.
#pragma once

#include "kinematics/estimate.h"
#include "kinematics/point.h"

namespace jg {

/// How large a rubber is, metres.
struct RubberSize {
    double longM, shortM;
};
/// 24 by 6 in (Official Baseball Rules 2.04, from memory), and 18 by 4 in on youth fields (from memory).
inline constexpr RubberSize kFullRubber{0.6096, 0.1524}, kYouthRubber{0.4572, 0.1016};

/// Three corners of the rubber as clicked in a film from the side.
struct RubberCorners {
    ClickedPoint nearFront; ///< nearest to the camera, on the plate's side
    ClickedPoint nearBack;  ///< nearest to the camera, away from the plate
    ClickedPoint farFront;  ///< the far end of the edge that faces the plate
    RubberSize size = kFullRubber;
};

/// Degrees toward the plate. A rubber seen by a pinhole at `distanceM`: the turn, the camera's pitch and the
/// scale are solved together from the three corners; the error is of clicks, roll and distance to first
/// order. `along` is +1 when the plate lies to the right. NaN when the corners show no rubber (two on one
/// spot, or no solution). Pure.
Estimate turnFromRubber(const RubberCorners& corners, ImagePoint centre, Estimate rollDeg, Estimate distanceM,
                        int along);

} // namespace jg
