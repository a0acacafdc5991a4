// SPDX-License-Identifier: GPL-3.0-or-later
// Bodies that differ more than those of the demo: what the table of depths is made from.
#pragma once

#include "tests/bodies/made_body.h"

#include <random>

namespace jg {

/// How one body differs from the usual: build, way of the stride, turn and lean of pelvis and trunk, arm
/// slots, knees. Spreads are own choice, meant for players of every age and slot; no source.
class WideHabits {
public:
    explicit WideHabits(std::mt19937_64& engine);
    /// A pose of another body, as this one would take it at `moment`.
    MadeBody::Joints applied(MadeBody::Joints pose, Moment moment, double heightM) const;

private:
    struct AtMoment {
        double pelvisYaw, trunkYaw, side, forward;
        Eigen::Vector3d throwing, forearm, glove, gloveForearm; ///< turns of the arms, degrees about x, y, z
        double backKnee, leadKnee;                              ///< about the line from hip to ankle, degrees
        Eigen::Vector3d head;                                   ///< parts of the height
        Eigen::Vector3d backFoot, leadFoot;
    };
    double hips_, shoulders_, stride_;
    Eigen::Vector3d place_; ///< on the rubber, parts of the height
    std::map<Moment, AtMoment> moments_;
};

} // namespace jg
