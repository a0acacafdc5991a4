// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/truth.h"

#include "kinematics/formula.h"
#include "kinematics/geometry.h"
#include "kinematics/turn.h"

#include <Eigen/Geometry>

#include <cmath>
#include <vector>

namespace jg {

namespace {

using Eigen::Vector3d;

/// A right-hander's world seen square from far away.
ImagePoint ideal(const Vector3d& p, View view) {
    switch (view) {
    case View::Open:
        return {p(0), -p(1)};
    case View::Closed:
        return {-p(0), -p(1)};
    case View::Front:
        return {-p(2), -p(1)};
    case View::Rear:
        break;
    }
    return {p(2), -p(1)};
}

double angleBetween(const Vector3d& a, const Vector3d& b) {
    return std::atan2(a.cross(b).norm(), a.dot(b)) * kDegPerRad;
}

double riseInSpace(const Vector3d& from, const Vector3d& to) {
    return std::asin((to - from)(1) / (to - from).norm()) * kDegPerRad;
}

} // namespace

std::optional<double> truthOf(const MeasureDefinition& m, const MadeBody& body, View view,
                              double captureFps) {
    std::vector<ImagePoint> points;
    std::vector<Vector3d> places;
    for (const Slot& slot : m.slots) {
        const auto time = body.times.find(slot.at);
        if (time == body.times.end()) return std::nullopt;
        const auto joints = body.at(time->second + slot.frames / captureFps);
        places.push_back(joints.at(slot.landmark));
        points.push_back(ideal(places.back(), view));
    }
    if (m.id == "lift-height") return riseInSpace(places[0], places[1]);
    const auto set = body.at(body.times.at(Moment::Set));
    const double height =
        length(ideal(set.at(Landmark::Crown), view) - ideal(set.at(Landmark::Ground), view));
    const double value = formulaOn(
        m, points, {targetDirectionX(Hand::Right, view), gloveDirectionX(Hand::Right, view), height / 100});
    if (!std::isfinite(value)) return std::nullopt;
    const auto turn = [&](std::size_t first, TurnSeen seen) {
        return turnFromRatio(
                   {ratioOfLengths(points[first], points[first + 1], points[first + 2], points[first + 3]),
                    0},
                   seen)
            .deg;
    };
    switch (m.kind) {
    case MeasureKind::TurnSide:
        return turn(0, TurnSeen::FromSide);
    case MeasureKind::TurnFront:
        return std::copysign(turn(0, TurnSeen::FromFront),
                             signedRatio(points[0], points[1], points[2], points[3]));
    case MeasureKind::TurnBetween:
        return turn(0, TurnSeen::FromSide) - turn(4, TurnSeen::FromSide);
    case MeasureKind::TurnFrontSigned:
        return signedTurnFromRatio({value, 0}).deg;
    default:
        return value;
    }
}

std::optional<double> inSpaceOf(const MeasureDefinition& m, const MadeBody& body, double captureFps) {
    std::vector<Vector3d> p;
    for (const Slot& slot : m.slots) {
        const auto time = body.times.find(slot.at);
        if (time == body.times.end()) return std::nullopt;
        p.push_back(body.at(time->second + slot.frames / captureFps).at(slot.landmark));
    }
    const auto joint = [&](std::size_t i) { return angleBetween(p[i] - p[i + 1], p[i + 2] - p[i + 1]); };
    switch (m.kind) {
    case MeasureKind::JointAngle:
        return joint(0);
    case MeasureKind::ChangeOfAngle:
        return joint(3) - joint(0);
    case MeasureKind::LineToLine:
        return angleBetween(p[1] - p[0], p[3] - p[2]);
    case MeasureKind::Distance:
        return 100 * (p[1] - p[0]).norm() / body.heightM;
    default:
        return std::nullopt;
    }
}

} // namespace jg
