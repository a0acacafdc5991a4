// SPDX-License-Identifier: GPL-3.0-or-later
// Measures without points: times, spin, and the speed a batter feels.
#pragma once

#include "kinematics/measure_value.h"

namespace jg {

/// Two events n frames apart lie (n - 1)/rate .. (n + 1)/rate apart: those are a time's 95 % bounds. Spin is
/// 60 x rate x turns / frames, and at most half a turn a frame can be told from its alias. A pitch looks as
/// fast as speed x usual distance / distance of this release. Pure. States as evaluate().
MeasureValue evaluateTiming(const MeasureDefinition& measure, const MeasureInput& input);

} // namespace jg
