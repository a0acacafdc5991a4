// SPDX-License-Identifier: GPL-3.0-or-later
// How light reaches the painter: the lamp, and the rays through the pixels.
#pragma once

#include "demo/films/camera.h"
#include "demo/films/vec3f.h"

namespace jg {

constexpr Vec3f kLight = {0.30f, 0.86f, 0.42f}; ///< toward the lamp; unit length within 1 %

/// Reproduces Camera::ray in floats, row by row. `jx`, `jy`: where in the pixel the rays go, 0..1.
struct RayMaker {
    Vec3f origin, corner, dx, dy;
    RayMaker(const Camera& camera, double jx, double jy)
        : origin(vec3f(camera.eye())) {
        // Rays on the plane one unit ahead are affine in the pixel.
        const auto onPlane = [&](double x, double y) {
            const Eigen::Vector3d centre =
                camera.ray(camera.settings().width / 2.0, camera.settings().height / 2.0);
            const Eigen::Vector3d r = camera.ray(x, y);
            return Eigen::Vector3d(r / r.dot(centre));
        };
        const Eigen::Vector3d o = onPlane(jx, jy);
        corner = vec3f(o);
        dx = vec3f((onPlane(jx + 1000, jy) - o) / 1000);
        dy = vec3f((onPlane(jx, jy + 1000) - o) / 1000);
    }
    Vec3f at(int x, int y) const {
        return unit(corner + static_cast<float>(x) * dx + static_cast<float>(y) * dy);
    }
};

} // namespace jg
