#include "kinematics/propagation.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

Estimate propagate(const Formula& formula, const Eigen::VectorXd& mean, const Eigen::MatrixXd& covariance,
                   bool isAngle) {
    Eigen::RowVectorXd gradient = Eigen::RowVectorXd::Zero(mean.size());
    Eigen::VectorXd at = mean;
    for (Eigen::Index i = 0; i < mean.size(); ++i) {
        const double sd = std::sqrt(covariance(i, i));
        if (sd == 0) continue;
        const double step = 0.1 * sd;
        at(i) = mean(i) + step;
        const double up = formula(at);
        at(i) = mean(i) - step;
        const double down = formula(at);
        at(i) = mean(i);
        gradient(i) = (isAngle ? wrapDeg(up - down) : up - down) / (2 * step);
    }
    const double variance = (gradient * covariance * gradient.transpose()).value();
    return {formula(mean), std::sqrt(variance)};
}

} // namespace jg
