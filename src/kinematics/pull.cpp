// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/pull.h"

#include "kinematics/feet.h"
#include "kinematics/geometry.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

using L = Landmark;

/// How readily a joint follows.
double easeOf(Landmark joint) {
    switch (joint) {
    case L::Pelvis:
    case L::MidBack:
    case L::Neck:
    case L::LeadHip:
    case L::BackHip:
    case L::LeadShoulder:
    case L::BackShoulder:
        return 0.2;
    case L::LeadKnee:
    case L::BackKnee:
    case L::LeadElbow:
    case L::BackElbow:
    case L::Head:
    case L::Chin:
    case L::Crown:
        return 0.6;
    default:
        return 1;
    }
}

class Puppet {
public:
    Puppet(const JointPlaces& body, JointPlaces pose, const std::set<Landmark>& standing)
        : pose_(std::move(pose)) {
        for (const auto& [a, b] : limbsOf(body)) limbs_.push_back({a, b, length(body.at(b) - body.at(a))});
        for (const auto& [joint, at] : pose_) ease_[joint] = standing.contains(joint) ? 0 : easeOf(joint);
    }

    /// Puts each limb right in turn until all are, or for so many rounds.
    void settle(int rounds) {
        constexpr double kTolerancePx = 0.02;
        for (int i = 0; i < rounds; ++i) {
            double worst = 0;
            for (const Limb& limb : limbs_) worst = std::max(worst, putRight(limb));
            if (worst < kTolerancePx) return;
        }
    }

    void hold(Landmark joint, ImagePoint at) {
        pose_[joint] = at;
        ease_[joint] = 0;
    }
    void letGo(Landmark joint) { ease_[joint] = easeOf(joint); }
    const JointPlaces& pose() const { return pose_; }

private:
    struct Limb {
        Landmark a, b;
        double length;
    };

    /// How far it was off, in pixels.
    double putRight(const Limb& limb) {
        ImagePoint &a = pose_[limb.a], &b = pose_[limb.b];
        const double ease = ease_[limb.a] + ease_[limb.b], now = length(b - a);
        if (ease <= 0 || now <= 0) return 0;
        const double off = (now - limb.length) / now;
        const ImagePoint way = b - a;
        const double fromA = off * ease_[limb.a] / ease, fromB = off * ease_[limb.b] / ease;
        a = {a.x + fromA * way.x, a.y + fromA * way.y};
        b = {b.x - fromB * way.x, b.y - fromB * way.y};
        return std::abs(now - limb.length);
    }

    JointPlaces pose_;
    std::vector<Limb> limbs_;
    std::map<Landmark, double> ease_;
};

} // namespace

JointPlaces pulled(const JointPlaces& body, const JointPlaces& pose, const std::set<Landmark>& standing,
                   Landmark joint, ImagePoint to) {
    constexpr int kPulled = 60, kLetGo = 2000; // rounds; out of reach it comes back slowly
    if (!pose.contains(joint) || !body.contains(joint)) return pose;
    std::set<Landmark> stays = standing;
    stays.erase(joint);
    for (const auto& foot : {kLeadFoot, kBackFoot})
        if (std::find(foot.begin(), foot.end(), joint) != foot.end())
            for (const Landmark l : foot) stays.erase(l);
    Puppet puppet(body, pose, stays);
    puppet.hold(joint, to);
    puppet.settle(kPulled);
    puppet.letGo(joint);
    puppet.settle(kLetGo);
    return puppet.pose();
}

} // namespace jg
