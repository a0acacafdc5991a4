#include "review/joints.h"

namespace jg {

JointPlaces jointsOn(const DeliveryMarks& delivery, std::int64_t frame) {
    JointPlaces joints;
    for (const auto& [key, mark] : delivery.points)
        if (key.frame == frame && mark.hidden.empty()) joints[key.landmark] = mark.point.at;
    return joints;
}

} // namespace jg
