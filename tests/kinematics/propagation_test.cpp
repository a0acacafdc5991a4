// SPDX-License-Identifier: GPL-3.0-or-later
// First and second order of formulas whose answer is known by hand.
#include "kinematics/propagation.h"

#include <gtest/gtest.h>

#include <cmath>

namespace jg {
namespace {

Eigen::MatrixXd together(double rho) {
    return Eigen::MatrixXd{{1, rho}, {rho, 1}};
}

TEST(Propagation, ADifferenceOfTwoThatErrTogetherIsSure) {
    const Formula difference = [](const Eigen::VectorXd& v) { return v(0) - v(1); };
    for (const double rho : {-0.5, 0.0, 0.9, 1.0})
        EXPECT_NEAR(propagate(difference, Eigen::VectorXd{{5, 2}}, together(rho), false).sd,
                    std::sqrt(2 * (1 - rho)), 1e-6);
}

// Half the trace of Hessian times covariance: for the square of a difference 2 - 2 rho.
TEST(Propagation, TheSecondOrderShiftKnowsWhatErrsTogether) {
    const Formula square = [](const Eigen::VectorXd& v) { return (v(0) - v(1)) * (v(0) - v(1)); };
    for (const double rho : {-0.5, 0.0, 0.9, 1.0})
        EXPECT_NEAR(secondOrderShift(square, Eigen::VectorXd{{5, 2}}, together(rho), false), 2 - 2 * rho,
                    1e-9);
    const Formula product = [](const Eigen::VectorXd& v) { return v(0) * v(1); };
    EXPECT_NEAR(secondOrderShift(product, Eigen::VectorXd{{5, 2}}, together(0.3), false), 0.3, 1e-9);
}

TEST(Propagation, WithoutAFoldsOwnErrorNothingIsTakenOut) {
    EXPECT_EQ(withoutFold(3, 0), 3);
    EXPECT_NEAR(withoutFold(10, 1), 10, 1e-6); // far from the fold
    EXPECT_EQ(withoutFold(0.5, 1), 0);         // less than the fold alone adds
    EXPECT_LT(withoutFold(1.2, 1), 1.2);
}

} // namespace
} // namespace jg
