// SPDX-License-Identifier: GPL-3.0-or-later
// What is derived from a delivery's film, as JSON kept beside it.
#pragma once

#include "base/result.h"
#include "review/record/review.h"

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <string_view>

namespace jg {

/// What was derived from a delivery's film and is kept beside it: followed paths and the camera's shifts.
/// Empty when there is nothing. Reading puts it into the delivery in place of what it holds.
std::string derivedToJson(const DeliveryMarks& delivery);
Status readDerived(std::string_view text, DeliveryMarks& delivery);

/// The same of a whole document; `shakeOn` where it does not say. Throws. Inside the review room only.
void readDerivedIn(const nlohmann::json& document, bool shakeOn, DeliveryMarks& delivery);

} // namespace jg
