// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/propagation.h"

#include "kinematics/geometry.h"

#include <Eigen/Eigenvalues>

#include <cmath>

namespace jg {

Eigen::RowVectorXd slopesOf(const Formula& formula, const Eigen::VectorXd& mean,
                            const Eigen::MatrixXd& covariance, bool isAngle, Eigen::Index first,
                            Eigen::Index count) {
    const double here = formula(mean);
    const auto change = [&](double to, double from) { return isAngle ? wrapDeg(to - from) : to - from; };
    Eigen::RowVectorXd slopes = Eigen::RowVectorXd::Zero(count);
    Eigen::VectorXd at = mean;
    for (Eigen::Index i = first; i < first + count; ++i) {
        const double sd = std::sqrt(covariance(i, i));
        if (sd == 0) continue;
        const double step = 0.1 * sd;
        at(i) = mean(i) + step;
        const double up = formula(at);
        at(i) = mean(i) - step;
        const double down = formula(at);
        at(i) = mean(i);
        const double rise = change(up, here) / step, fall = change(here, down) / step;
        const double steeper = std::abs(rise) > std::abs(fall) ? rise : fall;
        const double middle = (rise + fall) / 2;
        // At a fold, as a straight joint is, both sides go down and their mean would claim no error.
        slopes(i - first) = std::abs(middle) < 0.5 * std::abs(steeper) ? steeper : middle;
    }
    return slopes;
}

Estimate propagate(const Formula& formula, const Eigen::VectorXd& mean, const Eigen::MatrixXd& covariance,
                   bool isAngle) {
    const Eigen::RowVectorXd slopes = slopesOf(formula, mean, covariance, isAngle, 0, mean.size());
    return {formula(mean), std::sqrt((slopes * covariance * slopes.transpose()).value())};
}

double secondOrderShift(const Formula& formula, const Eigen::VectorXd& mean,
                        const Eigen::MatrixXd& covariance, bool isAngle) {
    const double here = formula(mean);
    // Along these directions the numbers err independently of each other.
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> ways(covariance);
    const double least = 1e-12 * ways.eigenvalues().cwiseAbs().maxCoeff();
    double shift = 0;
    for (Eigen::Index i = 0; i < mean.size(); ++i) {
        const double variance = ways.eigenvalues()(i);
        if (variance <= least) continue;
        const Eigen::VectorXd step = std::sqrt(variance) * ways.eigenvectors().col(i);
        for (const double side : {1.0, -1.0}) {
            const double change = formula(mean + side * step) - here;
            shift += (isAngle ? wrapDeg(change) : change) / 2;
        }
    }
    return shift;
}

double withoutFold(double away, double sd) {
    if (sd <= 0) return away;
    const double seen = away / sd, atFold = std::sqrt(2 / M_PI);
    if (seen <= atFold) return 0;
    double at = seen;
    for (int i = 0; i < 50; ++i) { // Newton from above on a convex rising curve
        const double slope = std::erf(at / std::sqrt(2.0));
        const double step = (atFold * std::exp(-at * at / 2) + at * slope - seen) / slope;
        at -= step;
        if (step < 1e-9) break;
    }
    return at * sd;
}

} // namespace jg
