// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/camera.h"

#include <Eigen/Geometry>

#include <cmath>

namespace jg {

using Eigen::Vector3d;

Camera::Camera(const CameraSettings& s)
    : settings_(s) {
    const double rad = M_PI / 180.0;
    const Vector3d aim(isSideView(s.view) ? 0.72 : 0.55, 0.86, 0);
    Vector3d out;
    switch (s.view) {
    case View::Open:
        out = {0, 0, 1};
        break;
    case View::Closed:
        out = {0, 0, -1};
        break;
    case View::Front:
        out = {1, 0, 0};
        break;
    case View::Rear:
        out = {-1, 0, 0};
        break;
    }
    out = Eigen::AngleAxisd(s.yawDeg * rad, Vector3d::UnitY()) * out;
    eye_ = aim + s.distanceM * out;
    eye_(1) = s.heightM;
    forward_ = (aim - eye_).normalized();
    // A phone is held upright: its own tilt is part of the picture, roll comes on top.
    right_ = forward_.cross(Vector3d::UnitY()).normalized();
    up_ = right_.cross(forward_);
    const Eigen::AngleAxisd roll(-s.rollDeg * rad, forward_);
    right_ = roll * right_;
    up_ = roll * up_;
    focal_ = s.width * s.distanceM / s.fieldM;
    cx_ = s.width / 2.0;
    cy_ = s.height / 2.0;
}

ImagePoint Camera::project(const Vector3d& world) const {
    const Vector3d v = world - eye_;
    const double depth = v.dot(forward_);
    return {cx_ + focal_ * v.dot(right_) / depth, cy_ - focal_ * v.dot(up_) / depth};
}

Vector3d Camera::ray(double x, double y) const {
    return (forward_ + (x - cx_) / focal_ * right_ - (y - cy_) / focal_ * up_).normalized();
}

double Camera::pxPerM(const Vector3d& world) const {
    return focal_ / (world - eye_).dot(forward_);
}

} // namespace jg
