// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/place.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

/// Where a point lies in the plane, from where the camera looks at it: along it, down it, and how far before
/// the camera, in parts of the distance.
struct Placer::Lying {
    double along, down, away;
};

Placer::Placer(const Placing& how)
    : how_(how)
    , cosYaw_(std::cos(how.yawDeg / kDegPerRad))
    , sinYaw_(std::sin(how.yawDeg / kDegPerRad))
    , cosPitch_(std::cos(how.pitchDeg / kDegPerRad))
    , sinPitch_(std::sin(how.pitchDeg / kDegPerRad))
    , cosRoll_(std::cos(how.rollDeg / kDegPerRad))
    , sinRoll_(std::sin(how.rollDeg / kDegPerRad)) {}

/// From the centre, the picture's roll turned out.
ImagePoint Placer::levelled(ImagePoint p) const {
    const ImagePoint v = p - how_.centre;
    return {v.x * cosRoll_ + v.y * sinRoll_, v.y * cosRoll_ - v.x * sinRoll_};
}

/// A point `t` along and `y` down lies, before a camera turned by yaw a and pitch b at distance D,
///     x = t cos a - d sin a,   n = d cos a + t sin a (nearer),   z = D + y sin b - n cos b,
/// and is seen at (u, v) = D / z (x, y cos b + n sin b): two equations linear in t and y.
Placer::Lying Placer::lyingAt(ImagePoint p, double depthPx) const {
    const ImagePoint q = levelled(p);
    const double u = q.x * how_.along, v = q.y;
    const double ca = cosYaw_, sa = sinYaw_, cb = cosPitch_, sb = sinPitch_;
    const double far = how_.distancePx, d = depthPx;
    const double a11 = far * ca + u * sa * cb, a12 = -u * sb, b1 = u * (far - d * ca * cb) + far * d * sa;
    const double a21 = -sa * (v * cb + far * sb), a22 = v * sb - far * cb;
    const double b2 = far * d * ca * sb - v * (far - d * ca * cb);
    const double det = a11 * a22 - a12 * a21;
    const double t = (b1 * a22 - a12 * b2) / det, y = (a11 * b2 - a21 * b1) / det;
    return {t, y, 1 + (y * sb - (d * ca + t * sa) * cb) / far};
}

ImagePoint Placer::placed(ImagePoint p, double depthPx) const {
    if (how_.distancePx <= 0) {
        const ImagePoint q = levelled(p);
        return {q.x / cosYaw_, q.y};
    }
    const Lying at = lyingAt(p, depthPx);
    return {at.along * how_.along, at.down};
}

double Placer::scaleAt(ImagePoint p, double depthPx) const {
    return how_.distancePx <= 0 ? 1 : lyingAt(p, depthPx).away;
}

int alongX(Hand hand, View view) {
    return isSideView(view) ? targetDirectionX(hand, view) : gloveDirectionX(hand, view);
}

ImagePoint placed(ImagePoint p, double depthPx, const Placing& how) {
    return Placer(how).placed(p, depthPx);
}

Estimate pitchFromGround(double belowCentre, Estimate lens, Estimate distance) {
    const double far = distance.value, up = lens.value;
    const double pitch = std::atan2(up, far) - std::atan2(belowCentre, far);
    const double byLens = far / (far * far + up * up);
    const double byFar = belowCentre / (far * far + belowCentre * belowCentre) - up / (far * far + up * up);
    return {pitch * kDegPerRad, std::hypot(byLens * lens.sd, byFar * distance.sd) * kDegPerRad};
}

} // namespace jg
