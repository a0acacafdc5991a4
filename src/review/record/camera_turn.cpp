// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/camera_turn.h"

#include "kinematics/place.h"
#include "review/record/camera_place.h"
#include "review/record/level.h"

#include <algorithm>
#include <cmath>

namespace jg {

Estimate turnByRubber(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                      const RubberCorners& corners) {
    constexpr Estimate kDistanceM{7, 1.2}; // own choice: phones are held 5 to 9 m away
    return turnFromRubber(corners, centreOf(clip), levelOf(delivery, clip, hand).rollDeg, kDistanceM,
                          targetDirectionX(hand, clip.view));
}

Estimate turnByHeights(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                       const std::array<Upright, 2>& uprights) {
    const auto place = cameraPlaceOf(delivery, clip);
    if (!place) return {std::nan(""), 0};
    const Estimate height = heightOf(delivery);
    const double focal = place->distance.value * height.value;
    const double relative =
        std::hypot(place->distance.sd / place->distance.value, height.sd / std::max(1.0, height.value));
    return turnFromEqualHeights(uprights, {place->centre,
                                           levelOf(delivery, clip, hand).rollDeg,
                                           place->pitchDeg,
                                           {focal, focal * relative},
                                           alongX(hand, clip.view)});
}

} // namespace jg
