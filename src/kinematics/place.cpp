#include "kinematics/place.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

namespace {

/// How far along the plane a point lies, and how much nearer to the camera than the plane's middle.
struct Along {
    double along, nearer;
};

Along alongOf(double u, double depthPx, const Placing& how) {
    const double c = std::cos(how.yawDeg / kDegPerRad), s = std::sin(how.yawDeg / kDegPerRad);
    const double far = how.distancePx;
    const double t = (u * (far - depthPx * c) + far * depthPx * s) / (far * c + u * s);
    return {t, depthPx * c + t * s};
}

} // namespace

ImagePoint placed(ImagePoint p, double depthPx, const Placing& how) {
    const ImagePoint q = rotated(p - how.centre, -how.rollDeg);
    if (how.distancePx <= 0) return {q.x / std::cos(how.yawDeg / kDegPerRad), q.y};
    const Along at = alongOf(q.x * how.along, depthPx, how);
    return {at.along * how.along, q.y * (1 - at.nearer / how.distancePx)};
}

double scaleAt(ImagePoint p, double depthPx, const Placing& how) {
    if (how.distancePx <= 0) return 1;
    const ImagePoint q = rotated(p - how.centre, -how.rollDeg);
    return 1 - alongOf(q.x * how.along, depthPx, how).nearer / how.distancePx;
}

} // namespace jg
