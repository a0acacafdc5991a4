// SPDX-License-Identifier: GPL-3.0-or-later
// A whole delivery of a jointed three-dimensional figure, as a function of time.
#pragma once

#include "demo/films/curve.h"
#include "kinematics/anatomy.h"

#include <Eigen/Core>

#include <map>
#include <vector>

namespace jg {

/// What coaches look at, as knobs. Angles in degrees, times in seconds, lengths in fractions of height.
struct DeliveryKnobs {
    double heightM = 1.80;
    double backKneeLoad = 104;
    double legSpread = 104;
    double frontKneePlant = 138;
    double frontKneeRelease = 146;
    double trunkForward = 44;
    double trunkSide = 14;
    double hipsOpenPlant = 45;
    double shouldersOpenPlant = 8;
    double elbowHeight = -4;    ///< against the shoulder line at plant
    double elbowBend = 92;      ///< at plant
    double handEarlyS = 0.03;   ///< how long before plant the hand is up
    double backFootLift = 0.02; ///< height of the back toe at release
    double gloveReach = 1.0;    ///< 1 = out over the front foot at plant, 0 = pulled in
    double earlyTravel = 0.03;
    double tempo = 1.0; ///< scales the time before first touch
    bool stretch = true;
    bool mound = true;
};

/// Joints of one moment, in metres: x toward the plate, y up, z toward third base (right-hander). The ground
/// at the rubber is y = 0.
using Joints = std::map<Landmark, Eigen::Vector3d>;

struct Pose {
    Joints joints;
    Eigen::Vector3d chestForward;
    Eigen::Vector3d spine;
    Eigen::Vector3d headForward;
    Eigen::Vector3d leftHandTip; ///< unused by measures: where the fingers end
    bool ballInHand = true;
};

/// A right-hander's delivery; a left-hander's is its mirror image. Immutable; any thread.
class Delivery {
public:
    explicit Delivery(const DeliveryKnobs& knobs);

    /// The pose `timeS` seconds after first touch.
    Pose poseAt(double timeS) const;
    /// Sub-frame times of the key positions and extra moments, seconds after first touch.
    const std::map<Moment, double>& events() const { return events_; }
    double startS() const { return startS_; }
    double endS() const { return endS_; }
    const DeliveryKnobs& knobs() const { return knobs_; }
    /// Height of the ground under a place, metres.
    double groundAt(double x) const;

private:
    enum Channel : int {
        PelvisX,
        PelvisY,
        PelvisZ,
        PelvisYaw,
        TrunkForward,
        TrunkSide,
        ShoulderYaw,
        LeadX,
        LeadY,
        LeadZ,
        LeadYaw,
        LeadPitch,
        BackX,
        BackY,
        BackZ,
        BackYaw,
        BackPitch,
        ArmA,
        ArmF = ArmA + 3,
        GloveA = ArmF + 3,
        GloveF = GloveA + 3,
        HeadYaw = GloveF + 3,
        BackKneeAim,
        Count
    };
    void key(double time, int channel, double value) {
        curves_[static_cast<std::size_t>(channel)].add(time, value);
    }
    void keyVector(double time, int channel, const Eigen::Vector3d& v);
    double value(int channel, double time) const {
        return curves_[static_cast<std::size_t>(channel)].at(time);
    }
    Eigen::Vector3d direction(int channel, double time) const;
    void build();
    void buildLegs();
    void buildTrunk();
    void buildArms();
    void findEvents();

    DeliveryKnobs knobs_; ///< as asked
    DeliveryKnobs aim_;   ///< as keyed, so that the pose in space has what was asked
    std::vector<Curve> curves_;
    std::map<Moment, double> events_;
    double startS_ = 0;
    double endS_ = 0;
    double setS_ = 0, topS_ = 0, breakS_ = 0, loadS_ = 0, plantS_ = 0, laybackS_ = 0, releaseS_ = 0,
           finishS_ = 0;
};

} // namespace jg
