#include "kinematics/place.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

namespace {

/// Where a point lies in the plane, from where the camera looks at it: along it, down it, and how far before
/// the camera, in parts of the distance.
struct Lying {
    double along, down, away;
};

/// A point `t` along and `y` down lies, before a camera turned by yaw a and pitch b at distance D,
///     x = t cos a - d sin a,   n = d cos a + t sin a (nearer),   z = D + y sin b - n cos b,
/// and is seen at (u, v) = D / z (x, y cos b + n sin b): two equations linear in t and y.
Lying lyingAt(double u, double v, double depthPx, const Placing& how) {
    const double ca = std::cos(how.yawDeg / kDegPerRad), sa = std::sin(how.yawDeg / kDegPerRad);
    const double cb = std::cos(how.pitchDeg / kDegPerRad), sb = std::sin(how.pitchDeg / kDegPerRad);
    const double far = how.distancePx, d = depthPx;
    const double a11 = far * ca + u * sa * cb, a12 = -u * sb, b1 = u * (far - d * ca * cb) + far * d * sa;
    const double a21 = -sa * (v * cb + far * sb), a22 = v * sb - far * cb;
    const double b2 = far * d * ca * sb - v * (far - d * ca * cb);
    const double det = a11 * a22 - a12 * a21;
    const double t = (b1 * a22 - a12 * b2) / det, y = (a11 * b2 - a21 * b1) / det;
    return {t, y, 1 + (y * sb - (d * ca + t * sa) * cb) / far};
}

Lying lyingAt(ImagePoint p, double depthPx, const Placing& how) {
    const ImagePoint q = rotated(p - how.centre, -how.rollDeg);
    return lyingAt(q.x * how.along, q.y, depthPx, how);
}

} // namespace

int alongX(Hand hand, View view) {
    return isSideView(view) ? targetDirectionX(hand, view) : gloveDirectionX(hand, view);
}

ImagePoint placed(ImagePoint p, double depthPx, const Placing& how) {
    if (how.distancePx <= 0) {
        const ImagePoint q = rotated(p - how.centre, -how.rollDeg);
        return {q.x / std::cos(how.yawDeg / kDegPerRad), q.y};
    }
    const Lying at = lyingAt(p, depthPx, how);
    return {at.along * how.along, at.down};
}

double scaleAt(ImagePoint p, double depthPx, const Placing& how) {
    return how.distancePx <= 0 ? 1 : lyingAt(p, depthPx, how).away;
}

Estimate pitchFromGround(double belowCentre, Estimate lens, Estimate distance) {
    const double far = distance.value, up = lens.value;
    const double pitch = std::atan2(up, far) - std::atan2(belowCentre, far);
    const double byLens = far / (far * far + up * up);
    const double byFar = belowCentre / (far * far + belowCentre * belowCentre) - up / (far * far + up * up);
    return {pitch * kDegPerRad, std::hypot(byLens * lens.sd, byFar * distance.sd) * kDegPerRad};
}

} // namespace jg
