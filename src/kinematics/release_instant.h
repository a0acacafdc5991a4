// When the ball left the hand, finer than the two frames it lies between. Inside the kinematics room only.
#pragma once

#include "kinematics/measure.h"

namespace jg {

/// Milliseconds after the last frame with the ball in the hand: mean and 95 % of all instants in the bracket,
/// each weighed by how well the clicks agree with it. No value when none agrees, or without a rate. Pure.
MeasureValue releaseInstantOf(const MeasureDefinition& measure, const MeasureInput& input);

} // namespace jg
