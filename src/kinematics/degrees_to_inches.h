// SPDX-License-Identifier: GPL-3.0-or-later
// What a change of an angle is in length: always told with the formula and the length that was used.
#pragma once

namespace jg {

/// Way of a point at the end of a limb that turns: angle (radians) x length, in the length's unit. Source:
/// circle geometry.
double arcLength(double angleDeg, double length);

/// Stride between two feet for a spread at the pelvis: 2 x leg x sin(spread / 2). Source: circle geometry.
double strideChord(double spreadDeg, double leg);

} // namespace jg
