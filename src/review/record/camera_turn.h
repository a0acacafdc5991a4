// SPDX-License-Identifier: GPL-3.0-or-later
// How far the camera was turned at a delivery, from what was clicked.
#pragma once

#include "kinematics/heights_turn.h"
#include "kinematics/rubber_turn.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <array>

namespace jg {

/// By three corners of the rubber, in a film from the side. NaN as turnFromRubber(). Pure.
Estimate turnByRubber(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                      const RubberCorners& corners);

/// By two things of one height. NaN as turnFromEqualHeights(), and until cameraPlaceOf() is known.
/// Pure.
Estimate turnByHeights(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                       const std::array<Upright, 2>& uprights);

} // namespace jg
