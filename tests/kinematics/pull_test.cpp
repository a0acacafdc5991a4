// SPDX-License-Identifier: GPL-3.0-or-later
// A pose pulled at one joint: limbs keep their length, what stands stays, the joint goes as near as it can.
#include "kinematics/pull.h"

#include "kinematics/geometry.h"

#include <gtest/gtest.h>

#include <random>

namespace jg {
namespace {

using L = Landmark;

JointPlaces body() {
    return {{L::Head, {400, 100}},         {L::Neck, {400, 150}},      {L::Pelvis, {400, 300}},
            {L::LeadShoulder, {440, 155}}, {L::LeadElbow, {500, 160}}, {L::LeadWrist, {560, 150}},
            {L::BackShoulder, {360, 155}}, {L::BackElbow, {300, 160}}, {L::BackWrist, {290, 100}},
            {L::LeadHip, {415, 305}},      {L::LeadKnee, {500, 380}},  {L::LeadAnkle, {560, 480}},
            {L::BackHip, {385, 305}},      {L::BackKnee, {330, 390}},  {L::BackAnkle, {260, 470}}};
}

double worstLength(const JointPlaces& was, const JointPlaces& now) {
    double worst = 0;
    for (const auto& [a, b] : limbsOf(was))
        worst = std::max(worst, std::abs(length(now.at(b) - now.at(a)) - length(was.at(b) - was.at(a))));
    return worst;
}

const std::set<Landmark> kStanding = {L::LeadAnkle, L::BackAnkle};

TEST(Pull, TheJointGoesWhereItIsPutWithinReachAndLimbsKeepTheirLength) {
    const JointPlaces was = body(), now = pulled(was, was, kStanding, L::BackWrist, {250, 120});
    EXPECT_NEAR(length(now.at(L::BackWrist) - ImagePoint{250, 120}), 0, 0.5);
    EXPECT_LT(worstLength(was, now), 0.1);
    EXPECT_EQ(now.at(L::LeadAnkle).x, was.at(L::LeadAnkle).x);
    EXPECT_EQ(now.at(L::BackAnkle).y, was.at(L::BackAnkle).y);
    // The hand's own limbs follow first: the front knee has hardly moved.
    EXPECT_LT(length(now.at(L::LeadKnee) - was.at(L::LeadKnee)), 10);
}

TEST(Pull, OutOfReachItComesBackAsFarAsTheLimbsAre) {
    const JointPlaces was = body(), now = pulled(was, was, kStanding, L::LeadWrist, {4000, 150});
    EXPECT_LT(worstLength(was, now), 0.5);
    EXPECT_LT(now.at(L::LeadWrist).x, 1200);
    EXPECT_GT(now.at(L::LeadWrist).x, was.at(L::LeadWrist).x);
    EXPECT_EQ(now.at(L::LeadAnkle).x, was.at(L::LeadAnkle).x);
}

TEST(Pull, AFootThatIsPulledStandsNoMore) {
    const JointPlaces was = body(), now = pulled(was, was, kStanding, L::LeadAnkle, {540, 470});
    EXPECT_NEAR(length(now.at(L::LeadAnkle) - ImagePoint{540, 470}), 0, 0.5);
    EXPECT_EQ(now.at(L::BackAnkle).x, was.at(L::BackAnkle).x);
}

TEST(Pull, ManySmallPullsNeverStretchALimb) {
    const JointPlaces was = body();
    JointPlaces now = was;
    std::mt19937 dice(36);
    std::vector<Landmark> all;
    for (const auto& [joint, at] : was) all.push_back(joint);
    for (int i = 0; i < 400; ++i) {
        const Landmark joint = all[dice() % all.size()];
        const ImagePoint at = now.at(joint);
        now = pulled(
            was, now, kStanding, joint,
            {at.x + static_cast<double>(dice() % 41) - 20, at.y + static_cast<double>(dice() % 41) - 20});
    }
    EXPECT_LT(worstLength(was, now), 0.5);
}

TEST(Pull, AJointThatIsNotThereChangesNothing) {
    const JointPlaces was = {{L::LeadKnee, {1, 2}}, {L::LeadAnkle, {3, 4}}};
    EXPECT_EQ(pulled(was, was, {}, L::Head, {9, 9}).at(L::LeadKnee).x, 1);
    // Two joints on one place have no direction to be put right in.
    const JointPlaces one = {{L::LeadKnee, {5, 5}}, {L::LeadAnkle, {5, 5}}};
    const JointPlaces now = pulled(one, one, {}, L::LeadKnee, {7, 5});
    EXPECT_NEAR(length(now.at(L::LeadAnkle) - now.at(L::LeadKnee)), 0, 0.1);
}

} // namespace
} // namespace jg
