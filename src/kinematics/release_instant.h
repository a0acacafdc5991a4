// SPDX-License-Identifier: GPL-3.0-or-later
// When the ball left the hand, finer than the two frames it lies between. Inside the kinematics room only.
#pragma once

#include "kinematics/measure_value.h"

namespace jg {

/// Milliseconds after the last frame with the ball in the hand: mean and 95 % of all instants in the bracket,
/// each weighed by how well the clicks agree with it. No value when none agrees, or without a rate. Pure.
MeasureValue releaseInstantOf(const MeasureDefinition& measure, const MeasureInput& input);

} // namespace jg
