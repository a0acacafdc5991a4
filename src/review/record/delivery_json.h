// SPDX-License-Identifier: GPL-3.0-or-later
// The JSON of one delivery of a review and of a grade. Inside the review room only.
#pragma once

#include "base/unfit.h"
#include "review/record/review.h"

#include <nlohmann/json.hpp>

#include <string>
#include <string_view>

namespace jg {

inline nlohmann::json pointAsJson(ImagePoint p) {
    return nlohmann::json::array({p.x, p.y});
}

inline ImagePoint pointIn(const nlohmann::json& p) {
    return {p.at(0).get<double>(), p.at(1).get<double>()};
}

/// Enums with an idOf are stored by id; their first `count` values' ids are tried.
template <typename E>
E enumIn(const nlohmann::json& value, int count, const char* what) {
    const auto id = value.get<std::string>();
    for (int i = 0; i < count; ++i)
        if (idOf(static_cast<E>(i)) == id) return static_cast<E>(i);
    throw Unfit(msg("document.unknown", {{"what", what}, {"id", id}}));
}

/// A grade with its evidence.
nlohmann::json gradeAsJson(const Grade& grade);
Grade gradeIn(const nlohmann::json& row);

/// All of a delivery but its paths and the camera's shifts.
nlohmann::json deliveryAsJson(const DeliveryMarks& delivery);
/// Reads it; what is not there keeps its default. Documents of format 1 hold paths and shake too. Throws.
DeliveryMarks deliveryIn(const nlohmann::json& row);

} // namespace jg
