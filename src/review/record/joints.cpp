// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/joints.h"

namespace jg {

JointPlaces jointsOn(const DeliveryMarks& delivery, std::int64_t frame) {
    JointPlaces joints;
    for (const auto& [key, mark] : delivery.points)
        if (key.frame == frame && mark.hidden.empty()) joints[key.landmark] = mark.point.at;
    return joints;
}

} // namespace jg
