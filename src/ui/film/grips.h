// SPDX-License-Identifier: GPL-3.0-or-later
// What can be taken hold of on a frame: clicked points and the corners of free marks.
#pragma once

#include "review/record/edit.h"

#include <optional>
#include <string>

namespace jg::ui {

/// A point under the mouse or picked by it: of the guide, or of a free mark.
struct Grip {
    std::optional<PointKey> point;
    std::string mark;
    std::size_t corner = 0;
};

/// The nearest one on a frame within reach, in picture pixels.
std::optional<Grip> gripAt(const DeliveryMarks& delivery, std::int64_t frame, ImagePoint at, double reach);
/// Where it lies now; nothing when it is gone.
std::optional<ImagePoint> placeOf(const DeliveryMarks& delivery, const Grip& grip);
/// The changes that put it elsewhere or take it away; nothing when it is gone.
std::optional<Change> moved(const DeliveryMarks& delivery, const Grip& grip, ImagePoint to);
Change removed(const Grip& grip);

} // namespace jg::ui
