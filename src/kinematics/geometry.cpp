// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

double length(ImagePoint v) {
    return std::hypot(v.x, v.y);
}

double wrapDeg(double angleDeg) {
    const double wrapped = std::remainder(angleDeg, 360.0);
    return wrapped <= -180.0 ? wrapped + 360.0 : wrapped;
}

namespace {
double cross(ImagePoint a, ImagePoint b) {
    return a.x * b.y - a.y * b.x;
}
double dot(ImagePoint a, ImagePoint b) {
    return a.x * b.x + a.y * b.y;
}

/// From the direction u to v, x toward y; NaN for a direction that is none.
double turnBetweenDeg(ImagePoint u, ImagePoint v) {
    if (length(u) == 0 || length(v) == 0) return std::nan("");
    return std::atan2(cross(u, v), dot(u, v)) * kDegPerRad;
}

} // namespace

double jointAngleDeg(ImagePoint a, ImagePoint vertex, ImagePoint b) {
    return std::abs(turnBetweenDeg(a - vertex, b - vertex));
}

double angleOnSideDeg(ImagePoint low, ImagePoint vertex, ImagePoint high, int targetX) {
    const double angle = -targetX * turnBetweenDeg(low - vertex, high - vertex);
    return angle < 0 ? angle + 360 : angle;
}

double tiltDeg(ImagePoint from, ImagePoint to, int targetX) {
    const ImagePoint v = to - from;
    if (length(v) == 0) return std::nan("");
    return std::atan2(v.x * targetX, -v.y) * kDegPerRad;
}

double aboveLineDeg(ImagePoint a, ImagePoint vertex, ImagePoint b) {
    const ImagePoint line = vertex - a;
    const ImagePoint arm = b - vertex;
    const double turn = turnBetweenDeg(line, arm);
    // y points down: a line going right has "up" on its negative side.
    return line.x >= 0 ? -turn : turn;
}

double distanceFromLine(ImagePoint p, ImagePoint a, ImagePoint b) {
    const ImagePoint line = b - a;
    if (length(line) == 0) return std::nan("");
    return std::abs(cross(line, p - a)) / length(line);
}

double ratioOfLengths(ImagePoint a, ImagePoint b, ImagePoint c, ImagePoint d) {
    const double whole = length(d - c);
    return whole == 0 ? std::nan("") : length(b - a) / whole;
}

double signedRatio(ImagePoint a, ImagePoint b, ImagePoint c, ImagePoint d) {
    const ImagePoint along = d - c, line = b - a;
    const double whole = along.x * along.x + along.y * along.y;
    return whole == 0 ? std::nan("") : (line.x * along.x + line.y * along.y) / whole;
}

ImagePoint rotated(ImagePoint p, double angleDeg) {
    const double c = std::cos(angleDeg / kDegPerRad);
    const double s = std::sin(angleDeg / kDegPerRad);
    return {p.x * c - p.y * s, p.x * s + p.y * c};
}

} // namespace jg
