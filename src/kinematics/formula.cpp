// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/formula.h"

#include "kinematics/geometry.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

using Points = std::vector<ImagePoint>;

double furthestOffLine(const Points& p) {
    double largest = 0;
    for (std::size_t i = 2; i < p.size(); ++i)
        largest = std::max(largest, distanceFromLine(p[i], p[0], p[1]));
    return largest;
}

/// Slope of a line by its far end above level; across the picture either way.
double aboveLevelDeg(ImagePoint near, ImagePoint far) {
    if (near == far) return std::nan("");
    return std::atan2(near.y - far.y, std::abs(far.x - near.x)) * kDegPerRad;
}

double directionDeg(ImagePoint before, ImagePoint after, int targetX) {
    if (before == after) return std::nan("");
    return std::atan2(before.y - after.y, (after.x - before.x) * targetX) * kDegPerRad;
}

double unsignedOf(const MeasureDefinition& m, const Points& p, const FormulaFrame& f) {
    switch (m.kind) {
    case MeasureKind::JointAngle:
        return m.pastStraight ? angleOnSideDeg(p[0], p[1], p[2], f.targetX) : jointAngleDeg(p[0], p[1], p[2]);
    case MeasureKind::LineToLine:
        return jointAngleDeg(p[1] - p[0], {0, 0}, p[3] - p[2]);
    case MeasureKind::Tilt:
        return tiltDeg(p[0], p[1], f.targetX);
    case MeasureKind::TiltAcross:
        return tiltDeg(p[0], p[1], f.gloveX);
    case MeasureKind::AboveLine:
        return aboveLineDeg(p[0], p[1], p[2]);
    case MeasureKind::AboveLevel:
        return m.pastStraight ? directionDeg(p[0], p[1], -f.targetX) : aboveLevelDeg(p[0], p[1]);
    case MeasureKind::Direction:
        return directionDeg(p[0], p[1], f.targetX);
    case MeasureKind::ChangeOfAngle:
        return jointAngleDeg(p[3], p[4], p[5]) - jointAngleDeg(p[0], p[1], p[2]);
    case MeasureKind::ChangeOfSlope:
        return aboveLevelDeg(p[2], p[3]) - aboveLevelDeg(p[0], p[1]);
    case MeasureKind::OffLine:
        return furthestOffLine(p) / f.unitPx;
    case MeasureKind::Fall:
        return (p[1].y - p[0].y) / f.unitPx;
    case MeasureKind::FallAgainst:
        return (p[1].y - p[0].y - (p[3].y - p[2].y)) / f.unitPx;
    case MeasureKind::Above:
        return (p[0].y - p[1].y) / f.unitPx;
    case MeasureKind::Ahead:
        return (p[1].x - p[0].x) * f.targetX / f.unitPx;
    case MeasureKind::ShareAhead:
        return p[2].x == p[0].x ? std::nan("") : 100 * (p[1].x - p[0].x) / (p[2].x - p[0].x);
    case MeasureKind::Across:
        return (p[1].x - p[0].x) * f.gloveX / f.unitPx;
    case MeasureKind::AcrossOf: {
        const double whole = length(p[3] - p[2]);
        return whole == 0 ? std::nan("") : 100 * (p[1].x - p[0].x) * f.gloveX / whole;
    }
    case MeasureKind::Distance:
        return length(p[1] - p[0]) / f.unitPx;
    case MeasureKind::Ratio:
        return ratioOfLengths(p[0], p[1], p[2], p[3]);
    case MeasureKind::ForwardDown:
        return p[1].y == p[0].y ? std::nan("") : (p[1].x - p[0].x) * f.targetX / (p[1].y - p[0].y);
    case MeasureKind::TurnSide:
    case MeasureKind::TurnFront:
        return ratioOfLengths(p[0], p[1], p[2], p[3]);
    case MeasureKind::TurnFrontSigned:
        return signedRatio(p[0], p[1], p[2], p[3]);
    case MeasureKind::ReleaseInstant:
    case MeasureKind::TurnBetween:
    case MeasureKind::TimeBetween:
    case MeasureKind::FrameCount:
    case MeasureKind::Seen:
    case MeasureKind::Spin:
    case MeasureKind::LooksLike:
    case MeasureKind::BallSpeed:
    case MeasureKind::BallTurns:
        break;
    }
    return std::nan("");
}

} // namespace

double formulaOn(const MeasureDefinition& m, const Points& points, const FormulaFrame& frame) {
    return m.sign * unsignedOf(m, points, frame);
}

} // namespace jg
