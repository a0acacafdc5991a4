// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/rubber_turn.h"

#include "kinematics/geometry.h"
#include "kinematics/place.h"
#include "kinematics/propagation.h"

#include <Eigen/LU>

#include <cmath>

namespace jg {

namespace {

using Eigen::Vector3d;

/// What is clicked and known: three corners, roll, distance.
struct Seen {
    ImagePoint nearFront, nearBack, farFront, centre;
    double rollDeg, distanceM;
    int along;
    RubberSize size;
};

/// Zero when turn (degrees), pitch (degrees) and scale (pixels a metre) explain the corners: the front edge
/// lies straight away from a square camera, both its ends on one ground, and the short edge is as long as it
/// is.
Vector3d misfit(const Seen& s, const Vector3d& guess) {
    const double px = guess(2);
    const Placing how{s.centre, s.rollDeg, guess(0), guess(1), s.distanceM * px, s.along};
    const ImagePoint front = placed(s.nearFront, px * s.size.longM / 2, how),
                     back = placed(s.nearBack, px * s.size.longM / 2, how),
                     far = placed(s.farFront, -px * s.size.longM / 2, how);
    return {(front.x - far.x) / px, (front.y - far.y) / px,
            (front.x - back.x) * s.along / px - s.size.shortM};
}

/// Newton's method with differences.
double solvedTurn(const Seen& s) {
    const double shortPx = length(s.nearFront - s.nearBack);
    if (shortPx == 0) return std::nan("");
    Vector3d x(0, 4, shortPx / s.size.shortM);
    const Vector3d step(0.01, 0.01, x(2) * 1e-4);
    for (int i = 0; i < 40; ++i) {
        const Vector3d r = misfit(s, x);
        if (!r.allFinite()) return std::nan("");
        if (r.norm() < 1e-10) return x(0);
        Eigen::Matrix3d slope;
        for (int k = 0; k < 3; ++k) {
            Vector3d to = x, from = x;
            to(k) += step(k), from(k) -= step(k);
            slope.col(k) = (misfit(s, to) - misfit(s, from)) / (2 * step(k));
        }
        Vector3d change = slope.fullPivLu().solve(r);
        // Far from the answer a whole step may leave the room in which a rubber can lie.
        const double largest = std::max(
            {std::abs(change(0)) / 15, std::abs(change(1)) / 10, std::abs(change(2)) / (0.3 * x(2)), 1.0});
        x -= change / largest;
    }
    return std::nan("");
}

} // namespace

Estimate turnFromRubber(const RubberCorners& c, ImagePoint centre, Estimate roll, Estimate distance,
                        int along) {
    const ClickedPoint* points[] = {&c.nearFront, &c.nearBack, &c.farFront};
    Eigen::VectorXd mean(8);
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(8, 8);
    for (int i = 0; i < 3; ++i) {
        mean(2 * i) = points[i]->at.x;
        mean(2 * i + 1) = points[i]->at.y;
        covariance(2 * i, 2 * i) = covariance(2 * i + 1, 2 * i + 1) = points[i]->sigmaPx * points[i]->sigmaPx;
    }
    mean(6) = roll.value, covariance(6, 6) = roll.sd * roll.sd;
    mean(7) = distance.value, covariance(7, 7) = distance.sd * distance.sd;
    const Formula turn = [&](const Eigen::VectorXd& v) {
        return solvedTurn({{v(0), v(1)}, {v(2), v(3)}, {v(4), v(5)}, centre, v(6), v(7), along, c.size});
    };
    return propagate(turn, mean, covariance, false);
}

} // namespace jg
