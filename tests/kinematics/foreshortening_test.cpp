// SPDX-License-Identifier: GPL-3.0-or-later
// Limbs out of the picture's plane.
#include "kinematics/foreshortening.h"

#include "kinematics/geometry.h"
#include "tests/support/core.h"

#include <Eigen/Geometry>
#include <cmath>
#include <random>

namespace jg {
namespace {

constexpr Landmark kKnee = Landmark::BackKnee, kAnkle = Landmark::BackAnkle, kHip = Landmark::BackHip;

TEST(Foreshortening, AShorterLimbIsTurnedAndOneWithinItsErrorIsNot) {
    const SeenLimb limbs[] = {{kKnee, kAnkle, Moment::Set, {100, 2}},
                              {kKnee, kAnkle, Moment::Load, {80, 2}},
                              {kKnee, kAnkle, Moment::Plant, {96, 2}}};
    const auto turned = turnedLimbs(limbs);
    ASSERT_EQ(turned.size(), 1U);
    EXPECT_EQ(turned[0].at, Moment::Load);
    EXPECT_EQ(turned[0].longestAt, Moment::Set);
    EXPECT_NEAR(turned[0].ratio.value, 0.8, 1e-9);
}

TEST(Foreshortening, ACoarseClickHidesATurn) {
    const SeenLimb limbs[] = {{kKnee, kAnkle, Moment::Set, {100, 12}},
                              {kKnee, kAnkle, Moment::Load, {88, 12}}};
    EXPECT_TRUE(turnedLimbs(limbs).empty());
}

/// Any two limbs in space, projected: their true angle is one of the two ends.
TEST(Foreshortening, TheAngleInSpaceIsOneOfTheEnds) {
    std::mt19937 engine(11);
    std::normal_distribution<double> any;
    for (int i = 0; i < 2000; ++i) {
        const Eigen::Vector3d u = Eigen::Vector3d(any(engine), any(engine), any(engine)).normalized(),
                              v = Eigen::Vector3d(any(engine), any(engine), any(engine)).normalized();
        const double seen = jointAngleDeg({u(0), u(1)}, {0, 0}, {v(0), v(1)});
        const double inSpace = std::acos(u.dot(v)) * kDegPerRad;
        const auto [least, largest] = anglesInSpaceDeg(seen, u.head<2>().norm(), v.head<2>().norm());
        EXPECT_NEAR(std::min(std::abs(inSpace - least), std::abs(inSpace - largest)), 0, 1e-5);
    }
}

TEST(Foreshortening, WidensTheErrorAndSaysWhy) {
    const MeasureDefinition& m = *test::playbook().measure("back-knee");
    MeasureInput in;
    in.points = {{"hip", {{300, 300}, 2}}, {"knee", {{400, 400}, 2}}, {"ankle", {{300, 500}, 2}}};
    const MeasureValue before = evaluate(m, in);
    in.limbs = {{kHip, kKnee, Moment::Load, {0.85, 0.02}, Moment::Set},
                {kKnee, kAnkle, Moment::Load, {0.9, 0.02}, Moment::Set}};
    const MeasureValue after = evaluate(m, in);
    EXPECT_EQ(*after.value, *before.value);
    const auto [least, largest] = anglesInSpaceDeg(90, 0.85, 0.9);
    EXPECT_LE(after.low95, least);
    EXPECT_GE(after.high95, largest);
    EXPECT_GT(after.sd, before.sd);
    ASSERT_EQ(after.warnings.size(), before.warnings.size() + 2);
    EXPECT_NE(said(after.warnings[0]).find("15 % shorter than at Set"), std::string::npos)
        << after.warnings[0];
    in.limbs[0].at = in.limbs[1].at = Moment::Plant; // another position's limbs say nothing here
    EXPECT_EQ(evaluate(m, in).high95, before.high95);
}

TEST(Foreshortening, ASlopeOfATurnedLimbIsItsRiseOverItsLength) {
    const MeasureDefinition& m = *test::playbook().measure("lift-height");
    MeasureInput in;
    in.points = {{"lead-hip", {{300, 400}, 1}}, {"lead-knee", {{330, 385}, 1}}};
    in.limbs = {{Landmark::LeadHip, Landmark::LeadKnee, Moment::LiftTop, {0.3, 0.02}, Moment::Plant}};
    // 33.54 px shown are 0.3 of 111.8; a rise of 15 of them is 7.71 degrees, where the picture shows 26.57.
    const MeasureValue v = evaluate(m, in);
    ASSERT_TRUE(v.value) << v.reason;
    EXPECT_NEAR(*v.value, 7.71, 0.01);
    EXPECT_LT(v.half95(), 3);
    EXPECT_NE(said(v.warnings.front()).find("length it shows at Plant"), std::string::npos);
    in.points["lead-knee"].at = {270, 415}; // the other way round, below the hip
    EXPECT_NEAR(*evaluate(m, in).value, -7.71, 0.01);
    in.limbs.front().at = Moment::Plant; // not turned here: as the picture shows it
    in.points["lead-knee"].at = {400, 300};
    EXPECT_NEAR(*evaluate(m, in).value, 45, 1e-9);
}

} // namespace
} // namespace jg
