// SPDX-License-Identifier: GPL-3.0-or-later
// A second maker of deliveries, for checks only: nothing of it comes from src/demo. How its bodies differ is
// told in tests/bodies/README.md.
#pragma once

#include "kinematics/anatomy.h"

#include <Eigen/Core>

#include <map>
#include <random>
#include <vector>

namespace jg::test {

/// A right-hander: x toward the plate, y up, z toward third base, metres; the ground at the rubber is y = 0.
/// Drawn at random from joint angles; a pose that no body can stand in is drawn again. Immutable.
class LinkedBody {
public:
    using Joints = std::map<Landmark, Eigen::Vector3d>;

    explicit LinkedBody(std::mt19937_64& engine);

    double heightM() const { return heightM_; }
    /// Seconds of the nine key positions; first touch is 0.
    const std::map<Moment, double>& times() const { return times_; }
    /// All landmarks at a time, between the drawn poses along a smooth path.
    Joints at(double timeS) const;

private:
    /// Lengths as parts of the height, each body its own.
    struct Build {
        double thigh, shank, foot, ankle, hips, trunk, shoulders, upperArm, forearm, hand, head;
    };
    struct Trunk {
        Eigen::Vector3d pelvis, up, shouldersLead, front;
    };
    void drawBuild();
    void drawHabits();
    Joints drawPose(Moment moment, const Joints* before);
    Joints onBackFoot(Moment moment);
    Joints onFrontFoot(Moment moment, const Joints& before);
    void addUpperBody(Moment moment, Joints& pose);
    /// Height of the ground, which falls toward where this body lands.
    double groundAt(double x) const;
    void addHead(Joints& pose, const Trunk& trunk);
    void addArm(Joints& pose, const Trunk& trunk, Moment moment, bool throwing);
    void addFoot(Joints& pose, bool lead, const Eigen::Vector3d& ankle, double yawDeg, double pitchDeg);
    /// Draws an angle or length of this body. What one place in the code draws goes on from pose to pose: a
    /// body that is low at touch is low at plant.
    double normal(double mean, double sd, int place = __builtin_LINE());

    std::mt19937_64* engine_;          ///< used while drawing only
    std::map<int, double> last_, now_; ///< in sds, by place: of the pose before, and of the one being drawn
    double goesOn_ = 0;                ///< correlation with the pose before
    std::normal_distribution<> normal_;
    Build build_{};
    double heightM_ = 1.8;
    double stride_ = 0; ///< way of the stride: degrees to the open side
    double turn_ = 0;   ///< of the whole body against the usual, degrees
    double slot_ = 0;   ///< of the throwing arm: side lean at release, degrees; below 0 = sidearm
    double opens_ = 0;  ///< shoulders at plant against the usual, degrees
    double lean_ = 0;   ///< forward at release against the usual, degrees
    std::map<Moment, double> times_;
    std::vector<std::pair<double, Joints>> poses_; ///< by time
};

} // namespace jg::test
