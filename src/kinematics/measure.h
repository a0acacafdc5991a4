// SPDX-License-Identifier: GPL-3.0-or-later
// A measure's number from what was clicked, with its error and the reasons when there is none.
#pragma once

#include "kinematics/measure_value.h"

namespace jg {

/// Computes one measure. Pure; any thread. Source of the formulas: docs/methods.md.
/// A time's 95 % bounds are the whole (n - 1)/rate .. (n + 1)/rate in which two events n frames apart lie.
MeasureValue evaluate(const MeasureDefinition& measure, const MeasureInput& input);

} // namespace jg
