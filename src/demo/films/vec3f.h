// SPDX-License-Identifier: GPL-3.0-or-later
// Three floats, for the painter's inner loops.
#pragma once

#include <Eigen/Core>

#include <algorithm>
#include <cmath>

namespace jg {

struct Vec3f {
    float x = 0, y = 0, z = 0;
};

inline Vec3f operator+(Vec3f a, Vec3f b) {
    return {a.x + b.x, a.y + b.y, a.z + b.z};
}
inline Vec3f operator-(Vec3f a, Vec3f b) {
    return {a.x - b.x, a.y - b.y, a.z - b.z};
}
inline Vec3f operator*(float s, Vec3f a) {
    return {s * a.x, s * a.y, s * a.z};
}
inline float dot(Vec3f a, Vec3f b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
inline Vec3f unit(Vec3f a) {
    return (1.0f / std::sqrt(std::max(1e-20f, dot(a, a)))) * a;
}
inline Vec3f vec3f(const Eigen::Vector3d& v) {
    return {static_cast<float>(v(0)), static_cast<float>(v(1)), static_cast<float>(v(2))};
}

} // namespace jg
