// SPDX-License-Identifier: GPL-3.0-or-later
// The joints of a body that are clicked on one frame.
#pragma once

#include "kinematics/ghost.h"
#include "review/record/review.h"

namespace jg {

/// Every visible landmark clicked on the frame, by landmark.
JointPlaces jointsOn(const DeliveryMarks& delivery, std::int64_t frame);

} // namespace jg
