// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/anatomy.h"
#include "kinematics/propagation.h"
#include "tests/support/core.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>
#include <string>

namespace jg {
namespace {

TEST(Anatomy, IdsAreUniqueAndGoBothWays) {
    std::set<std::string_view> ids;
    for (const LandmarkInfo& l : allLandmarks()) {
        EXPECT_TRUE(ids.insert(l.id).second) << l.id;
        EXPECT_EQ(landmarkFromId(l.id), l.landmark);
        EXPECT_EQ(info(l.landmark).id, l.id);
        EXPECT_FALSE(l.where().empty());
    }
    for (const MomentInfo& m : allMoments()) {
        EXPECT_EQ(momentFromId(m.id), m.moment);
        EXPECT_EQ(info(m.moment).id, m.id);
        EXPECT_FALSE(m.how().empty());
    }
    EXPECT_FALSE(landmarkFromId("nose"));
    EXPECT_FALSE(momentFromId("windup"));
}

TEST(Anatomy, NineKeyPositionsInOrder) {
    ASSERT_EQ(keyPositions().size(), 9U);
    EXPECT_EQ(keyPositions().front().moment, Moment::Set);
    EXPECT_EQ(keyPositions().back().moment, Moment::Finish);
    for (std::size_t i = 1; i < keyPositions().size(); ++i)
        EXPECT_LT(keyPositions()[i - 1].moment, keyPositions()[i].moment);
    EXPECT_TRUE(isKeyPosition(Moment::Release));
    EXPECT_FALSE(isKeyPosition(Moment::HandAboveShoulder));
}

// The open side faces the chest: third base for a right-hander, first base for a left-hander.
TEST(Anatomy, SidesAreWordedFromTheHand) {
    EXPECT_EQ(placeOf(View::Open, Hand::Right), "the third-base side");
    EXPECT_EQ(placeOf(View::Open, Hand::Left), "the first-base side");
    EXPECT_EQ(placeOf(View::Closed, Hand::Right), "the first-base side");
    EXPECT_EQ(placeOf(View::Closed, Hand::Left), "the third-base side");
    EXPECT_EQ(placeOf(View::Front, Hand::Left), "behind the plate");
}

TEST(Anatomy, ThePlateLiesWhereHandAndViewSay) {
    EXPECT_EQ(targetDirectionX(Hand::Right, View::Open), 1);
    EXPECT_EQ(targetDirectionX(Hand::Right, View::Closed), -1);
    EXPECT_EQ(targetDirectionX(Hand::Left, View::Open), -1);
    EXPECT_EQ(targetDirectionX(Hand::Left, View::Closed), 1);
    EXPECT_EQ(targetDirectionX(Hand::Left, View::Front), 0);
}

TEST(Anatomy, HandsAndViewsFromTheirIds) {
    EXPECT_EQ(handFromId("R"), Hand::Right);
    EXPECT_EQ(handFromId("left"), Hand::Left);
    EXPECT_FALSE(handFromId("both"));
    for (const View v : {View::Open, View::Closed, View::Front, View::Rear})
        EXPECT_EQ(viewFromId(idOf(v)), v);
    EXPECT_FALSE(viewFromId("above"));
    EXPECT_TRUE(isSideView(View::Open) && isSideView(View::Closed));
    EXPECT_FALSE(isSideView(View::Front));
}

// Sum and product of independent numbers: textbook propagation.
TEST(Propagation, SumsAndProducts) {
    Eigen::VectorXd mean(2);
    mean << 3, 5;
    Eigen::MatrixXd c = Eigen::MatrixXd::Zero(2, 2);
    c(0, 0) = 0.04;
    c(1, 1) = 0.09;
    const Estimate sum = propagate([](const Eigen::VectorXd& v) { return v(0) + v(1); }, mean, c, false);
    EXPECT_NEAR(sum.value, 8, 1e-12);
    EXPECT_NEAR(sum.sd, std::sqrt(0.13), 1e-9);
    const Estimate product = propagate([](const Eigen::VectorXd& v) { return v(0) * v(1); }, mean, c, false);
    EXPECT_NEAR(product.sd, std::sqrt(25 * 0.04 + 9 * 0.09), 1e-9);
}

TEST(Propagation, CovarianceOfASharedNumberCancelsInADifference) {
    Eigen::VectorXd mean(2);
    mean << 3, 5;
    Eigen::MatrixXd c(2, 2);
    c << 0.04, 0.04, 0.04, 0.04;
    EXPECT_NEAR(propagate([](const Eigen::VectorXd& v) { return v(1) - v(0); }, mean, c, false).sd, 0, 1e-9);
}

TEST(Propagation, ExactNumbersAddNothingAndAnglesWrap) {
    Eigen::VectorXd mean(1);
    mean << 180;
    Eigen::MatrixXd c = Eigen::MatrixXd::Zero(1, 1);
    EXPECT_EQ(propagate([](const Eigen::VectorXd& v) { return v(0); }, mean, c, true).sd, 0);
    c(0, 0) = 4;
    const auto wrapping = [](const Eigen::VectorXd& v) { return std::remainder(v(0), 360.0); };
    EXPECT_NEAR(propagate(wrapping, mean, c, true).sd, 2, 1e-9);
}

} // namespace
} // namespace jg
