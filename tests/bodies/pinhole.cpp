// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/pinhole.h"

#include <Eigen/Geometry>

#include <cmath>

namespace jg {

using Eigen::Vector3d;

ImagePoint Pinhole::project(const Vector3d& p) const {
    const double yaw = yawDeg * M_PI / 180, roll = rollDeg * M_PI / 180;
    // From where it looks to where it stands when square, and which way it is turned.
    const Vector3d out = view == View::Open     ? Vector3d(0, 0, 1)
                         : view == View::Closed ? Vector3d(0, 0, -1)
                         : view == View::Front  ? Vector3d(1, 0, 0)
                                                : Vector3d(-1, 0, 0);
    const Vector3d toward = isSideView(view) ? Vector3d(1, 0, 0) : Vector3d(0, 0, -1);
    const Vector3d aim(aimAheadM, aimHeightM, 0);
    Vector3d place = aim + distanceM * (std::cos(yaw) * out + std::sin(yaw) * toward);
    place(1) = lensM;
    const Vector3d into = (aim - place).normalized();
    const Vector3d right = into.cross(Vector3d(0, 1, 0)).normalized(), down = into.cross(right);
    const Vector3d seen = p - place;
    const double z = seen.dot(into), x = focalPx * seen.dot(right) / z, y = focalPx * seen.dot(down) / z;
    // A camera tipped clockwise shows the world turned the other way round; level marks measure the picture.
    const ImagePoint turned{x * std::cos(roll) - y * std::sin(roll), x * std::sin(roll) + y * std::cos(roll)};
    const double across = hand == Hand::Left ? -turned.x : turned.x;
    return {width / 2.0 + across, height / 2.0 + turned.y};
}

} // namespace jg
