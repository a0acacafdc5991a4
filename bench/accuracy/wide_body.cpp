// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/accuracy/wide_body.h"

#include <Eigen/Geometry>

#include <cmath>

namespace jg {

using Eigen::Vector3d;
using L = Landmark;

namespace {

constexpr double kRad = M_PI / 180;
// Own choice, sds: parts of a width or height, and degrees.
constexpr double kWidth = 0.08, kStride = 7, kPelvis = 11, kTrunk = 12, kSide = 10, kForward = 8, kArm = 16,
                 kForearm = 18, kKnee = 13, kHead = 0.02, kFoot = 0.02, kPlace = 0.02;
constexpr double kStanding = 0.4; // of it before anything moves
constexpr double kHabit = 0.7;    // of it stays from moment to moment; the rest is of the moment

Eigen::AngleAxisd about(const Vector3d& axis, double deg) {
    return Eigen::AngleAxisd(deg * kRad, axis);
}

Eigen::Quaterniond turnBy(const Vector3d& deg) {
    return Eigen::Quaterniond(about(Vector3d::UnitX(), deg(0)) * about(Vector3d::UnitY(), deg(1)) *
                              about(Vector3d::UnitZ(), deg(2)));
}

/// The knee goes with half of what its hip and ankle moved, then round the line between them.
void moveKnee(MadeBody::Joints& pose, const MadeBody::Joints& before, L hip, L knee, L ankle, double deg) {
    const Vector3d moved = ((pose.at(hip) - before.at(hip)) + (pose.at(ankle) - before.at(ankle))) / 2;
    const Vector3d axis = (pose.at(ankle) - pose.at(hip)).normalized();
    pose[knee] = pose.at(hip) + about(axis, deg) * (before.at(knee) + moved - pose.at(hip));
}

} // namespace

WideHabits::WideHabits(std::mt19937_64& engine) {
    std::normal_distribution<> normal;
    const auto draw = [&](double sd) { return sd * normal(engine); };
    const auto draw3 = [&](double sd) { return Vector3d(draw(sd), draw(sd), draw(sd)); };
    hips_ = 1 + draw(kWidth);
    shoulders_ = 1 + draw(kWidth);
    stride_ = draw(kStride);
    place_ = {draw(kPlace), 0, draw(kPlace)};
    const double momentPart = std::sqrt(1 - kHabit * kHabit);
    const AtMoment habit{draw(kPelvis),   draw(kTrunk), draw(kSide),     draw(kForward), draw3(kArm),
                         draw3(kForearm), draw3(kArm),  draw3(kForearm), draw(kKnee),    draw(kKnee),
                         draw3(kHead),    draw3(kFoot), draw3(kFoot)};
    for (const MomentInfo& info : allMoments()) {
        const double much = info.moment == Moment::Set ? kStanding : 1;
        const auto one = [&](double own, double sd) { return much * (kHabit * own + momentPart * draw(sd)); };
        const auto three = [&](const Vector3d& own, double sd) -> Vector3d {
            return much * (kHabit * own + momentPart * draw3(sd));
        };
        moments_[info.moment] = {one(habit.pelvisYaw, kPelvis), one(habit.trunkYaw, kTrunk),
                                 one(habit.side, kSide),        one(habit.forward, kForward),
                                 three(habit.throwing, kArm),   three(habit.forearm, kForearm),
                                 three(habit.glove, kArm),      three(habit.gloveForearm, kForearm),
                                 one(habit.backKnee, kKnee),    one(habit.leadKnee, kKnee),
                                 three(habit.head, kHead),      three(habit.backFoot, kFoot),
                                 three(habit.leadFoot, kFoot)};
    }
}

MadeBody::Joints WideHabits::applied(MadeBody::Joints pose, Moment moment, double heightM) const {
    const MadeBody::Joints before = pose;
    const AtMoment& a = moments_.at(moment);
    const Vector3d pelvis = pose.at(L::Pelvis);
    for (const L hip : {L::LeadHip, L::BackHip})
        pose[hip] = pelvis + about(Vector3d::UnitY(), a.pelvisYaw) * (hips_ * (pose.at(hip) - pelvis));
    const auto moveFoot = [&](Vector3d by, std::initializer_list<L> foot) {
        by(1) = 0;
        for (const L l : foot) pose[l] += by * heightM;
    };
    moveFoot(a.backFoot, {L::BackAnkle, L::BackHeel, L::BackToe});
    moveFoot(a.leadFoot, {L::LeadAnkle, L::LeadHeel, L::LeadToe});
    moveKnee(pose, before, L::BackHip, L::BackKnee, L::BackAnkle, a.backKnee);
    moveKnee(pose, before, L::LeadHip, L::LeadKnee, L::LeadAnkle, a.leadKnee);

    const Eigen::Quaterniond trunk(about(Vector3d::UnitY(), a.trunkYaw) * about(Vector3d::UnitX(), a.side) *
                                   about(Vector3d::UnitZ(), a.forward));
    for (const L l : {L::MidBack, L::Neck, L::Head, L::Crown, L::Chin, L::LeadShoulder, L::BackShoulder,
                      L::LeadElbow, L::BackElbow, L::LeadWrist, L::BackWrist, L::Ball, L::Glove})
        pose[l] = pelvis + trunk * (pose.at(l) - pelvis);
    for (const L l : {L::Head, L::Crown, L::Chin}) pose[l] += a.head * heightM;
    const auto arm = [&](L shoulder, L elbow, L wrist, L hand, const Vector3d& turn,
                         const Vector3d& forearm) {
        const Vector3d wider = (shoulders_ - 1) * (pose.at(shoulder) - pose.at(L::Neck));
        for (const L l : {shoulder, elbow, wrist, hand}) pose[l] += wider;
        for (const L l : {elbow, wrist, hand})
            pose[l] = pose.at(shoulder) + turnBy(turn) * (pose.at(l) - pose.at(shoulder));
        for (const L l : {wrist, hand})
            pose[l] = pose.at(elbow) + turnBy(forearm) * (pose.at(l) - pose.at(elbow));
    };
    arm(L::BackShoulder, L::BackElbow, L::BackWrist, L::Ball, a.throwing, a.forearm);
    arm(L::LeadShoulder, L::LeadElbow, L::LeadWrist, L::Glove, a.glove, a.gloveForearm);

    const double way = moment == Moment::Set || moment == Moment::LiftTop      ? 0
                       : moment == Moment::HandBreak || moment == Moment::Load ? 0.5
                                                                               : 1;
    for (auto& [landmark, p] : pose)
        if (landmark != L::Rubber) p = about(Vector3d::UnitY(), way * stride_) * (p + place_ * heightM);
    return pose;
}

} // namespace jg
