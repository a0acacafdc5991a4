// SPDX-License-Identifier: GPL-3.0-or-later
// The camera of the accuracy bench: an exact pinhole, written anew so that no check rests on the film
// maker's.
#pragma once

#include "kinematics/anatomy.h"
#include "kinematics/point.h"

#include <Eigen/Core>

namespace jg {

/// Stands at `distanceM` from where it looks, turned from square by `yawDeg` toward the target (side views)
/// or the glove side.
struct Pinhole {
    View view = View::Open;
    Hand hand = Hand::Right;
    double yawDeg = 0, rollDeg = 0;
    double distanceM = 7, lensM = 1, aimHeightM = 1, aimAheadM = 0;
    double focalPx = 1000;
    int width = 1280, height = 720;

    /// A right-hander's point as it is seen; a left-hander is the mirror image.
    ImagePoint project(const Eigen::Vector3d& p) const;
};

} // namespace jg
