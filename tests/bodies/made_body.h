// SPDX-License-Identifier: GPL-3.0-or-later
// A delivery to be seen by a camera, whoever made it.
#pragma once

#include "kinematics/anatomy.h"

#include <Eigen/Core>

#include <cstdint>
#include <functional>
#include <map>

namespace jg {

/// A right-hander in metres: x toward the plate, y up, z toward third base. Times in seconds.
struct MadeBody {
    using Joints = std::map<Landmark, Eigen::Vector3d>;
    double heightM = 0;
    std::map<Moment, double> times;
    std::function<Joints(double)> at;
};

/// By src/demo, whose bodies taught the table of depths (others of them).
MadeBody demoBody(std::uint64_t n);
/// By tests/bodies, which taught nothing.
MadeBody linkedBody(std::uint64_t n);

} // namespace jg
