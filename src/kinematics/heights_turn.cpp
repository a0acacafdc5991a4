// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/heights_turn.h"

#include "kinematics/place.h"
#include "kinematics/propagation.h"

#include <cmath>

namespace jg {

namespace {

constexpr double kMostDeg = 60;

/// What is clicked and known, in the order of the parameters.
enum At : Eigen::Index { kPoints = 0, kRoll = 8, kPitch, kFocal, kAll };

/// By how much the first is higher than the second once a turn is taken out, in parts of both.
double misfit(const Eigen::VectorXd& v, const UnturnedCamera& camera, double turnDeg) {
    const Placing how{camera.centre, v(kRoll), turnDeg, v(kPitch), v(kFocal), camera.along};
    const auto y = [&](Eigen::Index point) { return placed({v(2 * point), v(2 * point + 1)}, 0, how).y; };
    const double first = y(1) - y(0), second = y(3) - y(2);
    return (first - second) / (std::abs(first) + std::abs(second));
}

/// The turn between two that leave a misfit of either sign.
double between(const Eigen::VectorXd& v, const UnturnedCamera& camera, double low, double high) {
    const bool lowAbove = misfit(v, camera, low) > 0;
    for (int i = 0; i < 50; ++i) {
        const double middle = (low + high) / 2;
        ((misfit(v, camera, middle) > 0) == lowAbove ? low : high) = middle;
    }
    return (low + high) / 2;
}

/// The smallest turn that explains what is seen: at a large one the line passes the camera, and what the
/// misfit says there means nothing.
double solvedTurn(const Eigen::VectorXd& v, const UnturnedCamera& camera) {
    constexpr double kStep = 5;
    const double square = misfit(v, camera, 0);
    if (!std::isfinite(square)) return square;
    for (double turn = kStep; turn <= kMostDeg; turn += kStep)
        for (const double side : {1.0, -1.0}) {
            const double here = misfit(v, camera, side * turn);
            if (std::isfinite(here) && (here > 0) != (square > 0))
                return between(v, camera, side * (turn - kStep), side * turn);
        }
    return std::nan("");
}

} // namespace

Estimate turnFromEqualHeights(const std::array<Upright, 2>& uprights, const UnturnedCamera& camera) {
    Eigen::VectorXd mean(kAll);
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(kAll, kAll);
    Eigen::Index at = kPoints;
    const auto put = [&](double value, double sd) {
        mean(at) = value;
        covariance(at, at) = sd * sd;
        ++at;
    };
    for (const Upright& u : uprights)
        for (const ClickedPoint& p : {u.top, u.foot}) {
            put(p.at.x, p.sigmaPx);
            put(p.at.y, p.sigmaPx);
        }
    for (const Estimate& e : {camera.rollDeg, camera.pitchDeg, camera.focalPx}) put(e.value, e.sd);
    return propagate([&](const Eigen::VectorXd& v) { return solvedTurn(v, camera); }, mean, covariance,
                     false);
}

} // namespace jg
