// SPDX-License-Identifier: GPL-3.0-or-later
// A measure's number and all that is uncertain behind it. Inside the kinematics room only.
#pragma once

#include "kinematics/measure_value.h"
#include "kinematics/propagation.h"

#include <functional>
#include <vector>

namespace jg {

/// A number of a measure's points, level and square, at so many pixels a unit of length.
using OfPoints = std::function<double(const std::vector<ImagePoint>&, double unitPx)>;

/// The number as a formula of clicks, roll, turn, size, distance, pitch and depths, with their covariance.
/// Must not outlive the measure and the input.
class UncertainNumber {
public:
    UncertainNumber(const MeasureDefinition& measure, const MeasureInput& input, Estimate unitPx,
                    bool isAngle, OfPoints number);
    /// To first order, and where a depth counts only as far as the camera is turned, by both together.
    Estimate estimate() const;
    /// How far the bend of the formula moves its mean, to second order; NaN where it has no value.
    double shift() const;

private:
    /// What the depths add to the variance by a turn of one sd to either side; `unturned` are their slopes
    /// without it.
    double depthUnderTurn(const Eigen::RowVectorXd& unturned) const;
    Eigen::Index depthsAt() const; ///< of the first depth among the parameters

    Formula formula_;
    Eigen::VectorXd mean_;
    Eigen::MatrixXd covariance_;
    Eigen::Index slots_;
    bool isAngle_;
};

} // namespace jg
