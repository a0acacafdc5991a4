// SPDX-License-Identifier: GPL-3.0-or-later
// First-order error propagation for any formula of several uncertain numbers.
#pragma once

#include "kinematics/estimate.h"

#include <Eigen/Core>

#include <functional>

namespace jg {

/// A formula of n numbers. `isAngle` formulas give degrees and may wrap at +-180.
using Formula = std::function<double(const Eigen::VectorXd&)>;

/// Value at `mean` and sd = sqrt(J C J^T), J by central differences with a step of a tenth of each sd,
/// one-sided at a fold.
/// `covariance` is n x n, symmetric; a zero row marks an exact number. NaN where the formula has no value.
/// Pure; any thread. Source: first-order (delta method) propagation, textbook; checked against Monte Carlo.
Estimate propagate(const Formula& formula, const Eigen::VectorXd& mean, const Eigen::MatrixXd& covariance,
                   bool isAngle);

/// The slopes J of the formula at `mean` along `count` of its numbers from `first` on, as propagate() takes
/// them; 0 for exact numbers. Pure.
Eigen::RowVectorXd slopesOf(const Formula& formula, const Eigen::VectorXd& mean,
                            const Eigen::MatrixXd& covariance, bool isAngle, Eigen::Index first,
                            Eigen::Index count);

/// By how much the mean of the formula lies off its value at the mean, to second order: half the trace of its
/// curvature times the covariance, by steps of one sd along the covariance's own axes. Large beside the sd =
/// first order does not hold. Pure. Source: delta method, textbook.
double secondOrderShift(const Formula& formula, const Eigen::VectorXd& mean,
                        const Eigen::MatrixXd& covariance, bool isAngle);

/// How far a number lies from a fold it can't pass (a size from 0, a slope from upright), freed of what its
/// error adds: errors to either side lead away from the fold. The distance whose folded normal has `away` as
/// its mean; 0 when even that of 0 has more. Pure. Source: folded normal distribution (Leone, Nelson and
/// Nottingham 1961, from memory).
double withoutFold(double away, double sd);

} // namespace jg
