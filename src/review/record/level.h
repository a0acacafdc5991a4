// SPDX-License-Identifier: GPL-3.0-or-later
// How far the camera was rolled, from what is known to be level, upright or sloped.
#pragma once

#include "kinematics/estimate.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <string>

namespace jg {

/// A regulation mound falls 1 in a foot (Official Baseball Rules 2.01, from memory).
inline constexpr double kMoundSlopeDeg = 4.764;

struct Level {
    Estimate rollDeg; ///< clockwise; {0, 0} when nothing tells
    Message by;       ///< what tells, when it is less than a plumb or level line
};

/// From the longest plumb or level mark; else from a line down the mound, in films from the side; else from
/// the upright edges of the place, as the film check found them. Pure.
Level levelOf(const DeliveryMarks& delivery, const Clip& clip, Hand hand);

} // namespace jg
