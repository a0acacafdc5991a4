// SPDX-License-Identifier: GPL-3.0-or-later
// A perspective camera round the mound.
#pragma once

#include "kinematics/anatomy.h"
#include "kinematics/point.h"

#include <Eigen/Core>

namespace jg {

/// Where the camera stands and how it is held.
struct CameraSettings {
    View view = View::Open;
    int width = 1280;
    int height = 720;
    double yawDeg = 0;  ///< turned away from square
    double rollDeg = 0; ///< clockwise
    double distanceM = 6.5;
    double heightM = 1.05;
    double fieldM = 4.1; ///< width of the field at the athlete
};

/// Pinhole projection. Right-hander's world; see Delivery.
class Camera {
public:
    explicit Camera(const CameraSettings& settings);
    /// Picture point of a world point; `shift` and `turnDeg` are the shake of this frame.
    ImagePoint project(const Eigen::Vector3d& world) const;
    /// Unit direction through a pixel.
    Eigen::Vector3d ray(double x, double y) const;
    /// Pixels a metre has at a world point.
    double pxPerM(const Eigen::Vector3d& world) const;
    const Eigen::Vector3d& eye() const { return eye_; }
    const CameraSettings& settings() const { return settings_; }
    /// Moves the picture by (dx, dy) pixels, as a hand does.
    void shift(double dx, double dy) { cx_ += dx, cy_ += dy; }

private:
    CameraSettings settings_;
    Eigen::Vector3d eye_, right_, up_, forward_;
    double focal_ = 1;
    double cx_ = 0, cy_ = 0;
};

} // namespace jg
