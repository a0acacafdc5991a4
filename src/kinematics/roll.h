// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's roll from a line that is known to be level or upright.
#pragma once

#include "kinematics/estimate.h"
#include "kinematics/measure.h"
#include "kinematics/point.h"

namespace jg {

/// Roll of the camera from a clicked plumb or level line: the nearer axis decides which it is.
/// `from` and `to` carry their click error. Degrees, clockwise positive. Pure.
Estimate rollFromLine(ClickedPoint from, ClickedPoint to);

/// The same from an upright line before a camera that looks down, with `focalPx` of focal length: far from
/// the picture's middle upright things lean, and that is taken out. A line nearer to level keeps its roll.
Estimate rollFromPlumb(ClickedPoint from, ClickedPoint to, const CameraPlace& camera, double focalPx);

} // namespace jg
