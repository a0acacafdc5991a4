// SPDX-License-Identifier: GPL-3.0-or-later
// Where the camera stood at a delivery, but for its turn, from what was clicked.
#pragma once

#include "kinematics/measure.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <optional>

namespace jg {

/// The top of the head and the ground at Set.
struct StandingBody {
    ClickedPoint crown, ground;
    Estimate height() const; ///< pixels
    ImagePoint middle() const;
};
/// Nothing until both are clicked.
std::optional<StandingBody> standingAtSet(const DeliveryMarks& delivery);
/// Its height; {0, 0} when there is none.
Estimate heightOf(const DeliveryMarks& delivery);

/// A click with the usual error, which grows with the picture, and the usual lean; one whose error was
/// measured or given stays as it is.
ClickedPoint withLean(ClickedPoint click, const Clip& clip, double heightPx);

/// Of the picture: where the camera looks.
ImagePoint centreOf(const Clip& clip);

/// By the athlete's height at Set; nothing until crown and ground are clicked there. Pure.
std::optional<CameraPlace> cameraPlaceOf(const DeliveryMarks& delivery, const Clip& clip);

} // namespace jg
