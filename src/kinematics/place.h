// SPDX-License-Identifier: GPL-3.0-or-later
// From a point in the picture to the plane square to the view: roll, turn, perspective and depth taken off.
#pragma once

#include "kinematics/anatomy.h"
#include "kinematics/estimate.h"
#include "kinematics/point.h"

namespace jg {

/// How a picture was taken, for one point. Lengths in pixels of the athlete's plane.
struct Placing {
    ImagePoint centre;     ///< of the picture: where the camera looks
    double rollDeg = 0;    ///< clockwise
    double yawDeg = 0;     ///< the camera stands turned toward the target (side views) or the glove side
    double pitchDeg = 0;   ///< it looks down on the plane; counted only with a distance
    double distancePx = 0; ///< of the camera; 0 = without perspective
    int along = 1;         ///< +1 when that direction lies to the right in the picture
};

/// Placing for many points: what it takes of angles is computed once. Immutable but for the distance.
class Placer {
public:
    explicit Placer(const Placing& how);
    void setDistance(double px) { how_.distancePx = px; }
    ImagePoint placed(ImagePoint p, double depthPx) const;
    /// Length in the plane for one pixel as seen at `p`: what stands nearer than the plane looks larger.
    double scaleAt(ImagePoint p, double depthPx) const;

private:
    struct Lying;
    Lying lyingAt(ImagePoint p, double depthPx) const;
    ImagePoint levelled(ImagePoint p) const;

    Placing how_;
    double cosYaw_, sinYaw_, cosPitch_, sinPitch_, cosRoll_, sinRoll_;
};

/// As `along` for a view: where the target lies in the picture, or the glove side where it lies straight
/// ahead.
int alongX(Hand hand, View view);

/// Where a point clicked at `p`, `depthPx` before the plane toward a square camera, lies in that plane: x
/// along the picture's right, y down, from the centre. Exact for a pinhole. Pure.
ImagePoint placed(ImagePoint p, double depthPx, const Placing& how);

/// How far a camera looks down that stands `lens` above the ground at `distance` and sees the ground under
/// the athlete `belowCentre` under the picture's centre; all in standing heights. Degrees. Pure.
Estimate pitchFromGround(double belowCentre, Estimate lens, Estimate distance);

} // namespace jg
