// SPDX-License-Identifier: GPL-3.0-or-later
// Limbs that lie out of the picture's plane: how that shows, and what it does to a joint's angle.
#pragma once

#include "kinematics/measure_value.h"

#include <span>

namespace jg {

/// A limb as clicked on one frame.
struct SeenLimb {
    Landmark from, to;
    Moment at;
    Estimate lengthPx;
};

/// Compares each limb with the longest it shows in the clip. A limb is turned when it is shorter beyond its
/// click error (two deviations) and by more than 7 % (own choice: bodies are not rigid, and nearness to the
/// camera changes). Only turned limbs are given. Pure.
std::vector<LimbTurn> turnedLimbs(std::span<const SeenLimb> seen);

/// The turned limb that a measure's two points are the ends of, on one frame; null when none is known.
const LimbTurn* turnedLimb(const MeasureInput& input, const Slot& a, const Slot& b);

/// The joint's least and largest angle in space, when its two limbs look `first` and `second` of their length
/// and make `seenDeg` in the picture: the limbs may lean to the camera together or apart.
std::pair<double, double> anglesInSpaceDeg(double seenDeg, double first, double second);

/// For a joint's angle (or its change) over turned limbs: warns, and widens the 95 % interval so that it
/// holds the angles in space. A slope is reckoned from its limb's turn itself (kinematics/measure); the rest
/// are defined in the picture's plane.
void widenForTurnedLimbs(const MeasureDefinition& measure, const MeasureInput& input, MeasureValue& value);

} // namespace jg
