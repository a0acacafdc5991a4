// SPDX-License-Identifier: GPL-3.0-or-later
// How far a camera was turned from square, from one height that it shows at two places.
#pragma once

#include "kinematics/estimate.h"
#include "kinematics/point.h"

#include <array>

namespace jg {

/// Something that stands upright, as clicked.
struct Upright {
    ClickedPoint top, foot;
};

/// A pinhole camera but for its turn.
struct UnturnedCamera {
    ImagePoint centre; ///< of the picture
    Estimate rollDeg, pitchDeg;
    Estimate focalPx;
    int along = 1; ///< +1 when the target (side views) or the glove side lies to the right
};

/// Degrees toward the target (side views) or the glove side. The two are equally high and stand on a line to
/// the plate, or across it when the camera is there: of a turned camera one is nearer and looks taller. The
/// error is of clicks, roll, pitch and focal length to first order. NaN when no turn up to 60 degrees
/// explains what is seen, or they stand on one spot. Pure.
Estimate turnFromEqualHeights(const std::array<Upright, 2>& uprights, const UnturnedCamera& camera);

} // namespace jg
