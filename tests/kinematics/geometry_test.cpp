// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/geometry.h"

#include <gtest/gtest.h>

#include <cmath>

namespace jg {
namespace {

TEST(Geometry, JointAngleOfARightCorner) {
    EXPECT_NEAR(jointAngleDeg({0, 10}, {0, 0}, {10, 0}), 90, 1e-12);
}

TEST(Geometry, JointAngleDoesNotCareWhichArmComesFirst) {
    const ImagePoint hip{310, 402}, knee{352, 498}, ankle{330, 610};
    EXPECT_NEAR(jointAngleDeg(hip, knee, ankle), jointAngleDeg(ankle, knee, hip), 1e-12);
}

TEST(Geometry, StraightLegIs180) {
    EXPECT_NEAR(jointAngleDeg({0, 0}, {0, 5}, {0, 9}), 180, 1e-12);
}

TEST(Geometry, AnAngleOnTheTargetsSidePassesStraightWithoutAFold) {
    EXPECT_NEAR(angleOnSideDeg({0, 10}, {0, 0}, {0, -10}, 1), 180, 1e-12);
    EXPECT_NEAR(angleOnSideDeg({0, 10}, {0, 0}, {10, -10}, 1), 135, 1e-12);
    EXPECT_NEAR(angleOnSideDeg({0, 10}, {0, 0}, {-10, -10}, 1), 225, 1e-12);
    EXPECT_NEAR(angleOnSideDeg({0, 10}, {0, 0}, {-10, -10}, -1), 135, 1e-12);
    EXPECT_TRUE(std::isnan(angleOnSideDeg({1, 1}, {1, 1}, {2, 2}, 1)));
}

TEST(Geometry, EqualPointsHaveNoAngle) {
    EXPECT_TRUE(std::isnan(jointAngleDeg({1, 1}, {1, 1}, {2, 2})));
    EXPECT_TRUE(std::isnan(tiltDeg({3, 3}, {3, 3}, 1)));
}

TEST(Geometry, TiltIsPositiveTowardTheTargetOnEitherSide) {
    // 3-4-5: 3 across, 4 up is 36.87 degrees from vertical.
    EXPECT_NEAR(tiltDeg({0, 0}, {3, -4}, 1), 36.8699, 1e-4);
    EXPECT_NEAR(tiltDeg({0, 0}, {-3, -4}, -1), 36.8699, 1e-4);
    EXPECT_NEAR(tiltDeg({0, 0}, {-3, -4}, 1), -36.8699, 1e-4);
}

TEST(Geometry, AboveLineIsPositiveUpwardInBothDirections) {
    EXPECT_NEAR(aboveLineDeg({0, 0}, {10, 0}, {20, -10}), 45, 1e-12);
    EXPECT_NEAR(aboveLineDeg({0, 0}, {-10, 0}, {-20, -10}), 45, 1e-12);
    EXPECT_NEAR(aboveLineDeg({0, 0}, {10, 0}, {20, 10}), -45, 1e-12);
}

TEST(Geometry, DistanceFromALine) {
    EXPECT_NEAR(distanceFromLine({5, 7}, {0, 0}, {10, 0}), 7, 1e-12);
    EXPECT_NEAR(distanceFromLine({5, -7}, {10, 0}, {0, 0}), 7, 1e-12);
}

TEST(Geometry, WrapKeepsHalfOpenInterval) {
    EXPECT_DOUBLE_EQ(wrapDeg(180), 180);
    EXPECT_DOUBLE_EQ(wrapDeg(-180), 180);
    EXPECT_DOUBLE_EQ(wrapDeg(370), 10);
    EXPECT_DOUBLE_EQ(wrapDeg(-190), 170);
}

TEST(Geometry, RotationTurnsXTowardY) {
    const ImagePoint p = rotated({1, 0}, 90);
    EXPECT_NEAR(p.x, 0, 1e-12);
    EXPECT_NEAR(p.y, 1, 1e-12);
}

// Degrees to inches, facts of the trade (common practice, no source): 83 to 110 degrees of leg spread is 8 to
// 11 in more stride for legs of 26 to 34 in; 16 degrees at 14 to 18 in is 3.9 to 5.0 in.
TEST(Geometry, ChordAndArcOfTheTrade) {
    const auto chord = [](double leg, double spread) { return 2 * leg * std::sin(spread / 2 / kDegPerRad); };
    EXPECT_NEAR(chord(26, 110) - chord(26, 83), 8.1, 0.1);
    EXPECT_NEAR(chord(34, 110) - chord(34, 83), 10.6, 0.1);
    EXPECT_NEAR(16 / kDegPerRad * 14, 3.9, 0.05);
    EXPECT_NEAR(16 / kDegPerRad * 18, 5.0, 0.05);
}

} // namespace
} // namespace jg
