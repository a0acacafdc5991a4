#include "review/camera_place.h"

#include "kinematics/geometry.h"
#include "kinematics/place.h"
#include "review/assess.h"
#include "review/level.h"

#include <cmath>

namespace jg {

namespace {

ImagePoint centreOf(const Clip& clip) {
    return {clip.width / 2.0, clip.height / 2.0};
}

} // namespace

std::optional<CameraPlace> cameraPlaceOf(const DeliveryMarks& delivery, const Clip& clip) {
    constexpr Estimate kDistance = {4.2, 1.0}; // own choice, standing heights: phones are held 5 to 9 m away
    constexpr Estimate kLens = {0.6, 0.15}; // own choice: between belt and chest, as a re-film request asks
    const auto set = delivery.frameOf(Moment::Set);
    const PointMark* top = set ? delivery.point(*set, Landmark::Crown) : nullptr;
    const PointMark* foot = set ? delivery.point(*set, Landmark::Ground) : nullptr;
    if (!top || !foot || !top->hidden.empty() || !foot->hidden.empty()) return std::nullopt;
    const ImagePoint centre = centreOf(clip), up = foot->point.at - top->point.at;
    const double below = (foot->point.at.y - centre.y) / std::max(1.0, length(up));
    return CameraPlace{centre,
                       kDistance,
                       pitchFromGround(below, kLens, kDistance),
                       {(top->point.at.x + foot->point.at.x) / 2, (top->point.at.y + foot->point.at.y) / 2}};
}

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
