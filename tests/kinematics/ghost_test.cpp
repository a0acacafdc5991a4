// SPDX-License-Identifier: GPL-3.0-or-later
// The ghost against poses whose answer is known by hand, and against its own promises.
#include "kinematics/ghost.h"

#include "kinematics/degrees_to_inches.h"
#include "kinematics/geometry.h"
#include "kinematics/scale.h"
#include "tests/support/core.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace jg {
namespace {

using L = Landmark;

double frontKnee(const JointPlaces& p) {
    return jointAngleDeg(p.at(L::LeadHip), p.at(L::LeadKnee), p.at(L::LeadAnkle));
}

/// A front leg bent to 120 degrees, the shank upright.
GhostTask bentKnee() {
    GhostTask task;
    task.joints = {{L::LeadAnkle, {500, 600}}, {L::LeadKnee, {500, 500}}};
    const double a = (180 - 120) / kDegPerRad;
    task.joints[L::LeadHip] = {500 - 110 * std::sin(a), 500 - 110 * std::cos(a)};
    task.number = frontKnee;
    task.wanted = 135;
    setContacts(task, Moment::Release);
    return task;
}

/// A leg spread at plant that shall become 106 degrees.
GhostTask spreadTask(JointPlaces joints) {
    GhostTask task;
    task.joints = std::move(joints);
    task.number = [](const JointPlaces& p) {
        return jointAngleDeg(p.at(L::BackAnkle), p.at(L::Pelvis), p.at(L::LeadAnkle));
    };
    task.wanted = 106;
    setContacts(task, Moment::Plant);
    return task;
}

void expectLimbsKept(const GhostTask& task, const JointPlaces& after) {
    for (const auto& [a, b] : limbsOf(task.joints))
        EXPECT_NEAR(length(after.at(a) - after.at(b)), length(task.joints.at(a) - task.joints.at(b)), 0.1);
}

double sumOfSquares(const JointPlaces& a, const JointPlaces& b) {
    double sum = 0;
    for (const auto& [joint, at] : a) sum += std::pow(length(at - b.at(joint)), 2);
    return sum;
}

TEST(Ghost, AKneeIsOpenedAboutAFootThatStands) {
    const GhostTask task = bentKnee();
    const auto ghost = solveGhost(task);
    ASSERT_TRUE(ghost) << said(ghost.error().text);
    EXPECT_NEAR(ghost->before, 120, 1e-9);
    EXPECT_NEAR(frontKnee(ghost->joints), 135, 0.05);
    EXPECT_EQ(ghost->joints.at(L::LeadAnkle), task.joints.at(L::LeadAnkle));
    expectLimbsKept(task, ghost->joints);
}

/// Two limbs from a fixed ankle have two angles; a fine search over both is the reference.
TEST(Ghost, NoOtherPoseWithTheSameLimbsIsNearer) {
    const GhostTask task = bentKnee();
    const auto ghost = solveGhost(task);
    ASSERT_TRUE(ghost);
    double least = 1e18;
    for (int i = -40000; i <= 40000; ++i) {
        const double shank = i * 0.001 / kDegPerRad; // from upright
        const ImagePoint knee{500 + 100 * std::sin(shank), 600 - 100 * std::cos(shank)};
        const double thigh = shank - 45 / kDegPerRad;
        const ImagePoint hip{knee.x + 110 * std::sin(thigh), knee.y - 110 * std::cos(thigh)};
        least = std::min(least, std::pow(length(knee - task.joints.at(L::LeadKnee)), 2) +
                                    std::pow(length(hip - task.joints.at(L::LeadHip)), 2));
    }
    EXPECT_NEAR(sumOfSquares(ghost->joints, task.joints), least, 0.01 * least);
}

TEST(Ghost, ALandingFootSlidesAlongTheGroundAndTheBackFootStays) {
    const GhostTask task =
        spreadTask({{L::BackAnkle, {300, 600}}, {L::Pelvis, {400, 460}}, {L::LeadAnkle, {500, 600}}});
    const auto ghost = solveGhost(task);
    ASSERT_TRUE(ghost);
    EXPECT_NEAR(task.number(ghost->joints), 106, 0.05);
    EXPECT_EQ(ghost->joints.at(L::BackAnkle), task.joints.at(L::BackAnkle));
    EXPECT_NEAR(ghost->joints.at(L::LeadAnkle).y, 600, 1e-9);
    EXPECT_GT(ghost->joints.at(L::LeadAnkle).x, 510);
    expectLimbsKept(task, ghost->joints);
}

TEST(Ghost, HipsSeenEndOnGoWithThePelvis) {
    const GhostTask task = spreadTask({{L::BackAnkle, {400, 590}},
                                       {L::Pelvis, {565, 440}},
                                       {L::LeadAnkle, {720, 590}},
                                       {L::LeadHip, {570, 440}},
                                       {L::LeadKnee, {680, 480}}});
    const auto ghost = solveGhost(task);
    ASSERT_TRUE(ghost);
    EXPECT_NEAR(ghost->joints.at(L::LeadHip).x - ghost->joints.at(L::Pelvis).x, 5, 0.1);
    EXPECT_NEAR(ghost->joints.at(L::LeadHip).y - ghost->joints.at(L::Pelvis).y, 0, 0.1);
}

TEST(Ghost, OnlyWhatHangsTogetherMoves) {
    GhostTask task = bentKnee();
    task.joints[L::BackElbow] = {300, 300};
    task.joints[L::BackWrist] = {320, 250};
    const auto ghost = solveGhost(task);
    ASSERT_TRUE(ghost);
    EXPECT_EQ(ghost->joints.at(L::BackWrist), task.joints.at(L::BackWrist));
}

TEST(Ghost, SaysWhenNoPoseMeetsTheTarget) {
    GhostTask task = bentKnee();
    task.wanted = 200; // a joint opens to 180 at most
    EXPECT_EQ(solveGhost(task).error().code, ErrorCode::NotFound);
    task = bentKnee();
    task.standing = {L::LeadAnkle, L::LeadKnee, L::LeadHip};
    EXPECT_FALSE(solveGhost(task));
}

TEST(Ghost, RandomPosesKeepLimbsAndMeetTheirTarget) {
    std::mt19937 engine(5);
    std::uniform_real_distribution<double> at(100, 700), target(60, 170);
    int solved = 0;
    for (int i = 0; i < 300; ++i) {
        GhostTask task = bentKnee();
        for (auto& [joint, place] : task.joints) place = {at(engine), at(engine)};
        task.joints[L::Pelvis] = {at(engine), at(engine)};
        task.joints[L::Neck] = {at(engine), at(engine)};
        task.wanted = target(engine);
        const auto ghost = solveGhost(task);
        if (!ghost) continue;
        ++solved;
        EXPECT_NEAR(frontKnee(ghost->joints), task.wanted, 0.05);
        expectLimbsKept(task, ghost->joints);
    }
    EXPECT_GT(solved, 240); // some random points are no body that could
}

// Common practice, no source: 83 to 110 degrees is 8 to 11 in more stride for legs of 26 to 34 in; 16 degrees
// at 14 to 18 in is 3.9 to 5.0 in.
TEST(DegreesToInches, AreWhatTheTradeSays) {
    EXPECT_NEAR(strideChord(110, 26) - strideChord(83, 26), 8, 0.5);
    EXPECT_NEAR(strideChord(110, 34) - strideChord(83, 34), 11, 0.5);
    EXPECT_NEAR(arcLength(16, 14), 3.9, 0.05);
    EXPECT_NEAR(arcLength(16, 18), 5.0, 0.05);
}

TEST(Scale, TheOneNearestToTheBodyIsTaken) {
    const SeenLength height{ScaleKind::Height, {700, 3}, 1.75}, ball{ScaleKind::Ball, {29, 2.8}, 0.0738},
        plate{ScaleKind::Plate, {400, 2.8}, 0.4318};
    const SeenLength all[] = {ball, plate, height};
    EXPECT_EQ(nearestScale(all)->kind, ScaleKind::Height);
    EXPECT_NEAR(pxPerMetre(height).value, 400, 1e-9);
    EXPECT_NEAR(pxPerMetre(height).sd, 400 * std::hypot(3.0 / 700, 0.02), 1e-9);
    const SeenLength far[] = {plate};
    EXPECT_FALSE(nearestScale(far));
    const SeenLength none[] = {{ScaleKind::Height, {0, 0}, 1.75}};
    EXPECT_FALSE(nearestScale(none));
}

TEST(Scale, TheRubberShowsItsShortSideToTheSideAndItsLongOneToThePlate) {
    for (const View view : {View::Open, View::Closed, View::Front, View::Rear}) {
        EXPECT_EQ(info(ScaleKind::Rubber).seenFrom(view), !isSideView(view));
        EXPECT_EQ(info(ScaleKind::RubberShort).seenFrom(view), isSideView(view));
        EXPECT_TRUE(info(ScaleKind::Height).seenFrom(view));
    }
    EXPECT_DOUBLE_EQ(info(ScaleKind::Rubber).metres, 4 * info(ScaleKind::RubberShort).metres);
}

TEST(Scale, LengthsAreReadAsPeopleWriteThem) {
    EXPECT_NEAR(*metresFromWords("170 cm"), 1.70, 1e-12);
    EXPECT_NEAR(*metresFromWords("1.7 m"), 1.70, 1e-12);
    EXPECT_NEAR(*metresFromWords("67 in"), 1.7018, 1e-12);
    EXPECT_NEAR(*metresFromWords("5 ft 7"), 1.7018, 1e-12);
    EXPECT_NEAR(*metresFromWords("5'7\""), 1.7018, 1e-12);
    for (const char* wrong : {"", "tall", "170", "-3 cm", "0 m", "170 cm 3", "5 stone"})
        EXPECT_FALSE(metresFromWords(wrong)) << wrong;
    EXPECT_EQ(said(lengthInWords(0.6096, LengthUnit::Inches)), "24 in");
    EXPECT_EQ(said(lengthInWords(0.0738, LengthUnit::Inches)), "2.9 in");
    EXPECT_EQ(said(lengthInWords(0.6096, LengthUnit::Centimetres)), "61 cm");
    EXPECT_EQ(said(lengthInWords(0.0738, LengthUnit::Centimetres)), "7.4 cm");
}

} // namespace
} // namespace jg
