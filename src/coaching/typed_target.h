// SPDX-License-Identifier: GPL-3.0-or-later
// A target as a coach types it.
#pragma once

#include "base/result.h"
#include "coaching/target.h"
#include "kinematics/catalogue.h"
#include "kinematics/scale.h"

#include <string_view>

namespace jg {

/// Asks nothing and keeps the number: at the measure's last position, in its unit, a length in the coach's.
/// Pure.
Target recordOf(const MeasureDefinition& measure, LengthUnit lengths = LengthUnit::Inches);

/// The soft margin where none is given: a tenth of the limit, at least 1, of a ratio 0.1 (own choice).
double softMarginOf(double limit, const MeasureDefinition& measure);

/// "at least 48", ">= 48", "at most 110", "<= 110", "80 to 100", "80-100", or one or more of a seen measure's
/// answers with "or" between; at the measure's last position, in its unit, which may stand behind the number
/// and no other. A comma is a decimal point. The soft margin is softMarginOf(). Errors: BadInput that says
/// how to write it. Pure.
Result<Target> typedTarget(std::string_view text, const MeasureDefinition& measure,
                           LengthUnit lengths = LengthUnit::Inches);

} // namespace jg
