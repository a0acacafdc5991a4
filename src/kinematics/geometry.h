// SPDX-License-Identifier: GPL-3.0-or-later
// Angles and distances from points. Angles in degrees, lengths in the points' unit.
#pragma once

#include "kinematics/point.h"

namespace jg {

inline constexpr double kDegPerRad = 57.29577951308232;

double length(ImagePoint v);
/// Brings an angle into (-180, 180].
double wrapDeg(double angleDeg);

/// Interior angle at `vertex` between the arms to `a` and `b`, 0..180. Equal points give NaN.
double jointAngleDeg(ImagePoint a, ImagePoint vertex, ImagePoint b);
/// Angle at `vertex` from the arm down to `low` to the arm up to `high`, through the side of the target (+x
/// for `targetX` = 1, -x for -1): 180 = straight, less = bent toward the target, more = away. 0..360; NaN for
/// equal points.
double angleOnSideDeg(ImagePoint low, ImagePoint vertex, ImagePoint high, int targetX);
/// Tilt of the line from `from` up to `to`, from vertical; positive toward the target, which lies at
/// +x for `targetX` = 1 and at -x for -1.
double tiltDeg(ImagePoint from, ImagePoint to, int targetX);
/// Signed angle of `b`-`vertex` above the line `a`-`vertex` drawn on past the vertex; positive upward.
double aboveLineDeg(ImagePoint a, ImagePoint vertex, ImagePoint b);
/// Distance of `p` from the line through `a` and `b`, never negative.
double distanceFromLine(ImagePoint p, ImagePoint a, ImagePoint b);
/// Length a to b over length c to d. NaN when c and d are one.
double ratioOfLengths(ImagePoint a, ImagePoint b, ImagePoint c, ImagePoint d);
/// The part of a to b that lies along c to d, over the length c to d: negative when it points the other way.
/// NaN when c and d are one.
double signedRatio(ImagePoint a, ImagePoint b, ImagePoint c, ImagePoint d);
/// Turns a point about the origin by `angleDeg` (x toward y).
ImagePoint rotated(ImagePoint p, double angleDeg);

} // namespace jg
