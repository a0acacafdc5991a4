// A target as a coach types it.
#pragma once

#include "base/result.h"
#include "coaching/target.h"
#include "kinematics/catalogue.h"

#include <string_view>

namespace jg {

/// Asks nothing and keeps the number: at the measure's last position, in its unit. Pure.
Target recordOf(const MeasureDefinition& measure);

/// "at least 48", ">= 48", "at most 110", "<= 110", "80 to 100", "80-100", or one or more of a seen measure's
/// answers with "or" between; at the measure's last position, in its unit. A comma is a decimal point. The
/// soft margin is a tenth of the number, at least 1 (own choice). Errors: BadInput that says how to write it.
/// Pure.
Result<Target> typedTarget(std::string_view text, const MeasureDefinition& measure);

} // namespace jg
