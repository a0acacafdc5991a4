// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/delivery.h"

#include "demo/films/body.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <functional>

namespace jg {

using Eigen::Vector3d;

namespace {

constexpr double kRad = M_PI / 180.0;

/// Distance hip-ankle of a leg whose knee has this interior angle (law of cosines), fractions of height.
double legSpan(double kneeDeg) {
    return std::sqrt(body::kThigh * body::kThigh + body::kShank * body::kShank -
                     2 * body::kThigh * body::kShank * std::cos(kneeDeg * kRad));
}

/// Knee between hip and ankle, bent toward `pole`.
Vector3d kneeOf(const Vector3d& hip, const Vector3d& ankle, double thigh, double shank,
                const Vector3d& pole) {
    const Vector3d line = ankle - hip;
    const double d = std::min(line.norm(), (thigh + shank) * 0.9999);
    const Vector3d along = line.normalized();
    const double a = (thigh * thigh - shank * shank + d * d) / (2 * d);
    const double out = std::sqrt(std::max(0.0, thigh * thigh - a * a));
    Vector3d side = pole - pole.dot(along) * along;
    side.normalize();
    return hip + a * along + out * side;
}

Vector3d flat(double yawDeg) { // 0 = toward third base, 90 = toward the plate
    return {std::sin(yawDeg * kRad), 0, std::cos(yawDeg * kRad)};
}

double angleAt(const Pose& pose, Landmark a, Landmark vertex, Landmark b) {
    const Vector3d u = pose.joints.at(a) - pose.joints.at(vertex),
                   v = pose.joints.at(b) - pose.joints.at(vertex);
    return std::acos(std::clamp(u.dot(v) / (u.norm() * v.norm()), -1.0, 1.0)) / kRad;
}

struct PlantPose {
    double stride = 0; // ankle to ankle along x
    double pelvisX = 0;
    double pelvisY = 0;
};

/// The landing that has this leg spread and front knee: the pelvis is lowered until the spread fits.
PlantPose solvePlant(const DeliveryKnobs& k, double backAnkleX, double backAnkleRise) {
    const double hipX = body::kHalfHips * std::cos(k.hipsOpenPlant * kRad);
    const double front = legSpan(k.frontKneePlant);
    const double back = legSpan(158);
    double low = 0.12, high = std::min(front, back) - 0.001;
    const auto reach = [](double span, double h) { return std::sqrt(std::max(0.0, span * span - h * h)); };
    for (int i = 0; i < 60; ++i) {
        const double h = (low + high) / 2;
        const double spread = std::atan2(hipX + reach(front, h), h) +
                              std::atan2(hipX + reach(back, h - backAnkleRise), h - backAnkleRise);
        (spread / kRad > k.legSpread ? low : high) = h;
    }
    const double h = (low + high) / 2;
    const double backReach = hipX + reach(back, h - backAnkleRise);
    return {backReach + hipX + reach(front, h), backAnkleX + backReach, h + body::kAnkleHeight};
}

} // namespace

double Delivery::groundAt(double x) const {
    if (!knobs_.mound) return 0;
    // From 6 in before the rubber the mound falls 1 in a foot (Official Baseball Rules 2.01, from memory).
    return -std::clamp(x - 0.152, 0.0, 3.05) / 12.0;
}

void Delivery::keyVector(double time, int channel, const Vector3d& v) {
    const Vector3d u = v.normalized();
    for (int i = 0; i < 3; ++i) key(time, channel + i, u(i));
}

Vector3d Delivery::direction(int channel, double time) const {
    return Vector3d(value(channel, time), value(channel + 1, time), value(channel + 2, time)).normalized();
}

Delivery::Delivery(const DeliveryKnobs& knobs)
    : knobs_(knobs) {
    const double t = knobs_.tempo;
    setS_ = (knobs_.stretch ? -0.86 : -1.15) * t;
    topS_ = -0.52 * t;
    breakS_ = -0.36 * t;
    loadS_ = -0.19 * t;
    plantS_ = 0.034;
    laybackS_ = plantS_ + 0.108;
    releaseS_ = plantS_ + 0.146;
    finishS_ = releaseS_ + 0.36;
    startS_ = setS_ - 0.55;
    endS_ = finishS_ + 0.4;
    // The key poses are planned in one plane; a few corrections make the angles in space come out as asked.
    aim_ = knobs_;
    for (int round = 0; round < 5; ++round) {
        build();
        const Pose plant = poseAt(plantS_), release = poseAt(releaseS_);
        using L = Landmark;
        double deepest = 180;
        for (double t = topS_; t < -0.02; t += 0.004)
            deepest = std::min(deepest, angleAt(poseAt(t), L::BackHip, L::BackKnee, L::BackAnkle));
        aim_.backKneeLoad += knobs_.backKneeLoad - deepest;
        aim_.legSpread += knobs_.legSpread - angleAt(plant, L::BackAnkle, L::Pelvis, L::LeadAnkle);
        aim_.frontKneePlant += knobs_.frontKneePlant - angleAt(plant, L::LeadHip, L::LeadKnee, L::LeadAnkle);
        aim_.frontKneeRelease +=
            knobs_.frontKneeRelease - angleAt(release, L::LeadHip, L::LeadKnee, L::LeadAnkle);
        aim_.elbowBend += knobs_.elbowBend - angleAt(plant, L::BackShoulder, L::BackElbow, L::BackWrist);
    }
    build();
    findEvents();
}

void Delivery::build() {
    curves_.assign(Channel::Count, Curve{});
    buildLegs();
    buildTrunk();
    buildArms();
}

void Delivery::buildLegs() {
    const DeliveryKnobs& k = aim_;
    const double ankle = body::kAnkleHeight;
    const double backAnkleX = 0.075, rise = 0.075;
    const PlantPose plant = solvePlant(k, backAnkleX, rise);
    const double leadX = backAnkleX + plant.stride;
    const double fall = groundAt(leadX * k.heightM) / k.heightM;
    const double plantY = plant.pelvisY + fall * 0.75;

    // Load: the back hip-ankle distance gives the back knee its angle; the seat goes a little behind.
    const double loadSpan = legSpan(k.backKneeLoad);
    const double loadX = 0.095 + k.earlyTravel, loadZ = -0.035;
    const double hipX = loadX - body::kHalfHips * std::cos(-8 * kRad);
    const double loadY = ankle + std::sqrt(std::max(0.05, loadSpan * loadSpan - hipX * hipX - loadZ * loadZ));

    // Release: the front hip stands on the front leg at the wanted knee angle.
    const double frontSpan = legSpan(k.frontKneeRelease);
    const double lean = 41 * kRad;
    const double relX = leadX - frontSpan * std::sin(lean);
    const double relY = ankle + fall + frontSpan * std::cos(lean);
    const double finX = leadX - 0.11, finY = ankle + fall + legSpan(150) * 0.93;

    const struct {
        double t, x, y, z, yaw;
    } pelvis[] = {{startS_, 0.095, 0.515, 0, 0},
                  {setS_, 0.095, 0.515, 0, 0},
                  {topS_, 0.02 + k.earlyTravel, 0.523, -0.01, -14},
                  {loadS_, loadX, loadY, loadZ, -8},
                  {0.0, plant.pelvisX - 0.045, plantY + 0.012, -0.02, k.hipsOpenPlant * 0.62},
                  {plantS_, plant.pelvisX, plantY, -0.01, k.hipsOpenPlant},
                  {laybackS_, (plant.pelvisX + relX) / 2 + 0.015, (plantY + relY) / 2, 0.01, 84},
                  {releaseS_, relX, relY, 0.02, 97},
                  {finishS_, finX, finY, 0.02, 122},
                  {endS_, finX + 0.02, finY + 0.02, 0.02, 115}};
    for (const auto& p : pelvis) {
        key(p.t, PelvisX, p.x);
        key(p.t, PelvisY, p.y);
        key(p.t, PelvisZ, p.z);
        key(p.t, PelvisYaw, p.yaw);
    }
    const double setLead = 0.19;
    const struct {
        double t, x, y, z, yaw, pitch;
    } lead[] = {{startS_, setLead, ankle, 0.01, 0, 0},         {setS_, setLead, ankle, 0.01, 0, 0},
                {topS_ - 0.10, 0.13, 0.27, 0.115, -8, -18},    {topS_, 0.11, 0.325, 0.135, -10, -20},
                {breakS_, 0.15, 0.22, 0.13, -6, -15},          {loadS_, 0.27, 0.115, 0.085, 5, -8},
                {-0.08, leadX * 0.82, 0.085, 0.035, 45, 6},    {0.0, leadX, ankle + fall, -0.005, 72, 9},
                {plantS_, leadX, ankle + fall, -0.005, 74, 0}, {endS_, leadX, ankle + fall, -0.005, 76, 0}};
    for (const auto& p : lead) {
        key(p.t, LeadX, p.x);
        key(p.t, LeadY, p.y);
        key(p.t, LeadZ, p.z);
        key(p.t, LeadYaw, p.yaw);
        key(p.t, LeadPitch, p.pitch);
    }
    // The back knee looks at third base while standing and turns toward the plate in the load.
    for (const auto& [t, aim] :
         {std::pair{startS_, 0.3}, {topS_, 0.4}, {loadS_, 2.4}, {plantS_, 1.6}, {releaseS_, 0.6}})
        key(t, BackKneeAim, aim);
    // The back foot is keyed by its toe, so that it stays put while the heel rises.
    const double toeZ = body::kFoot * 0.72;
    const struct {
        double t, x, y, z, yaw, pitch;
    } back[] = {{startS_, 0, 0, toeZ, 0, 0},
                {loadS_, 0, 0, toeZ, 2, 0},
                {-0.07, 0.01, 0, toeZ * 0.98, 12, 22},
                {plantS_, 0.05, 0, toeZ * 0.9, 42, 52},
                {releaseS_, 0.17, k.backFootLift, toeZ * 0.75, 84, 84},
                {releaseS_ + 0.14, relX - 0.10, 0.22, 0.16, 105, 100},
                {finishS_, leadX + 0.02, fall, 0.27, 82, 12},
                {endS_, leadX + 0.05, fall, 0.25, 85, 0}};
    for (const auto& p : back) {
        key(p.t, BackX, p.x);
        key(p.t, BackY, p.y);
        key(p.t, BackZ, p.z);
        key(p.t, BackYaw, p.yaw);
        key(p.t, BackPitch, p.pitch);
    }
}

void Delivery::buildTrunk() {
    const DeliveryKnobs& k = aim_;
    const struct {
        double t, forward, side, shoulders, head;
    } trunk[] = {{startS_, 1, 0, 0, 62},
                 {setS_, 1, 0, 0, 66},
                 {topS_, -2, 0, -16, 74},
                 {loadS_, -3, 1, -10, 80},
                 {0.0, -1, 2, k.shouldersOpenPlant * 0.4, 84},
                 {plantS_, 2, 3, k.shouldersOpenPlant, 86},
                 {laybackS_, k.trunkForward * 0.52, k.trunkSide * 0.75, 84, 90},
                 {releaseS_, k.trunkForward, k.trunkSide, 112, 92},
                 {releaseS_ + 0.12, k.trunkForward + 18, k.trunkSide, 146, 90},
                 {finishS_, 66, 8, 152, 80},
                 {endS_, 34, 3, 120, 84}};
    for (const auto& p : trunk) {
        key(p.t, TrunkForward, p.forward);
        key(p.t, TrunkSide, p.side);
        key(p.t, ShoulderYaw, p.shoulders);
        key(p.t, HeadYaw, p.head);
    }
}

void Delivery::buildArms() {
    const DeliveryKnobs& k = aim_;
    // Directions in the trunk's own axes: (along the shoulder line to the throwing side, chest forward,
    // spine).
    const double up = std::tan(k.elbowHeight * kRad);
    const Vector3d plantArm = Vector3d(0.97, -0.16, 0.97 * up).normalized();
    Vector3d plantFore(0.05, -0.05, 1);
    plantFore = (plantFore - plantFore.dot(plantArm) * plantArm).normalized();
    plantFore = -std::cos(k.elbowBend * kRad) * plantArm + std::sin(k.elbowBend * kRad) * plantFore;
    const double handUp = plantS_ - k.handEarlyS;
    const struct {
        double t;
        Vector3d arm, fore;
    } right[] = {{startS_, {0.22, 0.34, -0.92}, {-0.80, 0.50, 0.36}},
                 {setS_, {0.22, 0.34, -0.92}, {-0.80, 0.50, 0.36}},
                 {topS_, {0.22, 0.36, -0.90}, {-0.80, 0.46, 0.42}},
                 {breakS_, {0.22, 0.34, -0.92}, {-0.78, 0.54, 0.30}},
                 {breakS_ + (loadS_ - breakS_) * 0.6, {0.42, 0.02, -0.91}, {0.10, 0.50, -0.86}},
                 {loadS_ + 0.03, {0.74, -0.20, -0.64}, {0.52, 0.05, -0.85}},
                 {std::min(handUp - 0.075, -0.065), {0.93, -0.28, -0.24}, {0.74, 0.02, -0.42}},
                 {handUp, {0.96, -0.20, 0.9 * up - 0.03}, {0.58, 0.0, 0.17}},
                 {plantS_, plantArm, plantFore},
                 {laybackS_, {0.93, 0.22, 0.05}, {0.05, -0.93, 0.30}},
                 {(laybackS_ + releaseS_) / 2 + 0.004, {0.90, 0.36, 0.08}, {0.42, -0.10, 0.86}},
                 {releaseS_, {0.84, 0.48, 0.16}, {0.66, 0.60, 0.42}},
                 {releaseS_ + 0.06, {0.62, 0.74, -0.10}, {0.25, 0.93, -0.10}},
                 {releaseS_ + 0.15, {0.12, 0.88, -0.46}, {-0.38, 0.72, -0.58}},
                 {finishS_, {-0.30, 0.70, -0.64}, {-0.74, 0.10, -0.66}},
                 {endS_, {0.02, 0.50, -0.86}, {-0.45, 0.60, -0.60}}};
    for (const auto& p : right) {
        keyVector(p.t, ArmA, p.arm);
        keyVector(p.t, ArmF, p.fore);
    }
    const double g = k.gloveReach;
    const struct {
        double t;
        Vector3d arm, fore;
    } left[] = {{startS_, {-0.22, 0.34, -0.92}, {0.80, 0.50, 0.36}},
                {setS_, {-0.22, 0.34, -0.92}, {0.80, 0.50, 0.36}},
                {topS_, {-0.22, 0.36, -0.90}, {0.80, 0.46, 0.42}},
                {breakS_, {-0.22, 0.34, -0.92}, {0.78, 0.54, 0.30}},
                {loadS_, {-0.66, 0.40, -0.60}, {-0.35, 0.80, 0.30}},
                {-0.05, {-0.92, 0.30, -0.10}, {-0.80, 0.45, 0.22}},
                {plantS_, {-0.90, 0.25 + 0.1 * g, -0.32 + 0.24 * g}, {-0.80 * g + 0.2, 0.55, 0.10}},
                {laybackS_, {-0.72, 0.20, -0.62}, {0.05, 0.90, 0.30}},
                {releaseS_, {-0.52, -0.10, -0.84}, {0.22, 0.80, 0.46}},
                {finishS_, {-0.55, -0.20, -0.80}, {0.20, 0.70, 0.10}},
                {endS_, {-0.40, 0.20, -0.88}, {0.30, 0.80, 0.20}}};
    for (const auto& p : left) {
        keyVector(p.t, GloveA, p.arm);
        keyVector(p.t, GloveF, p.fore);
    }
}

Pose Delivery::poseAt(double t) const {
    const double h = knobs_.heightM;
    Pose pose;
    Joints& j = pose.joints;
    Vector3d pelvis = h * Vector3d(value(PelvisX, t), value(PelvisY, t), value(PelvisZ, t));
    const double yaw = value(PelvisYaw, t);
    const Vector3d hipLine = h * body::kHalfHips * Vector3d(std::cos(yaw * kRad), 0, -std::sin(yaw * kRad));
    const Vector3d leadAnkle = h * Vector3d(value(LeadX, t), value(LeadY, t), value(LeadZ, t));
    const double legLength = h * (body::kThigh + body::kShank) * 0.998;

    // A planted front leg can't be longer than it is: the pelvis gives way to it.
    const Vector3d leadHip = pelvis + hipLine;
    if (const double over = (leadHip - leadAnkle).norm() - legLength; over > 0)
        pelvis -= over * (leadHip - leadAnkle).normalized();

    const double backYaw = value(BackYaw, t);
    const double pitch = value(BackPitch, t) * kRad;
    Vector3d toe = h * Vector3d(value(BackX, t), value(BackY, t), value(BackZ, t));
    const Vector3d footDir = flat(backYaw);
    const auto ankleFrom = [&](const Vector3d& from) {
        const Vector3d sole = -std::cos(pitch) * footDir + Vector3d(0, std::sin(pitch), 0);
        const Vector3d upright = std::sin(pitch) * footDir + Vector3d(0, std::cos(pitch), 0);
        return Vector3d(from + h * body::kFoot * 0.72 * sole + h * body::kAnkleHeight * upright);
    };
    const Vector3d backHip = pelvis - hipLine;
    Vector3d backAnkle = ankleFrom(toe);
    if (const double over = (backHip - backAnkle).norm() - legLength; over > 0) { // the foot is dragged along
        toe += over * (backHip - backAnkle).normalized();
        backAnkle = ankleFrom(toe);
    }
    j[Landmark::Pelvis] = pelvis;
    j[Landmark::LeadHip] = pelvis + hipLine;
    j[Landmark::BackHip] = backHip;
    j[Landmark::LeadAnkle] = leadAnkle;
    j[Landmark::BackAnkle] = backAnkle;
    const Vector3d facing = flat(yaw);
    const double leadYaw = value(LeadYaw, t);
    j[Landmark::LeadKnee] = kneeOf(j[Landmark::LeadHip], leadAnkle, h * body::kThigh, h * body::kShank,
                                   0.6 * facing + 0.7 * flat(leadYaw) + Vector3d(0.12, 0.25, 0));
    j[Landmark::BackKnee] = kneeOf(backHip, backAnkle, h * body::kThigh, h * body::kShank,
                                   0.55 * facing + 0.6 * footDir + Vector3d(value(BackKneeAim, t), 0, 0));

    const double leadPitch = value(LeadPitch, t) * kRad;
    const Vector3d leadDir = std::cos(leadPitch) * flat(leadYaw) + Vector3d(0, std::sin(leadPitch), 0);
    const Vector3d leadUp = -std::sin(leadPitch) * flat(leadYaw) + Vector3d(0, std::cos(leadPitch), 0);
    j[Landmark::LeadHeel] = leadAnkle - h * body::kAnkleHeight * leadUp - h * body::kFoot * 0.28 * leadDir;
    j[Landmark::LeadToe] = leadAnkle - h * body::kAnkleHeight * leadUp + h * body::kFoot * 0.72 * leadDir;
    j[Landmark::BackToe] = toe;
    j[Landmark::BackHeel] =
        toe + h * body::kFoot * (-std::cos(pitch) * footDir + Vector3d(0, std::sin(pitch), 0));

    // Trunk: the spine leans, the shoulder line turns about it.
    const double forward = value(TrunkForward, t) * kRad;
    const double side = value(TrunkSide, t) * kRad;
    const Vector3d u =
        Vector3d(std::sin(forward), std::cos(forward) * std::cos(side), -std::cos(forward) * std::sin(side))
            .normalized();
    const double turn = value(ShoulderYaw, t) * kRad;
    Vector3d s(-std::cos(turn), 0, std::sin(turn));
    s = (s - s.dot(u) * u).normalized();
    const Vector3d f = u.cross(s);
    const Vector3d neckBase = pelvis + h * (body::kTrunk + 0.012) * u;
    j[Landmark::Neck] = neckBase;
    j[Landmark::MidBack] = pelvis + 0.5 * h * body::kTrunk * u;
    const Vector3d shoulders = pelvis + h * (body::kTrunk - 0.018) * u;
    j[Landmark::BackShoulder] = shoulders + h * body::kHalfShoulders * s;
    j[Landmark::LeadShoulder] = shoulders - h * body::kHalfShoulders * s;
    const Vector3d headUp = (0.55 * u + Vector3d(0, 0.45, 0)).normalized();
    const Vector3d face = flat(value(HeadYaw, t));
    j[Landmark::Head] = neckBase + h * (body::kNeck + 0.055) * headUp + h * 0.012 * face;
    j[Landmark::Crown] = j[Landmark::Head] + h * 0.075 * headUp;
    j[Landmark::Chin] = j[Landmark::Head] - h * 0.055 * headUp + h * 0.035 * face;

    const auto limb = [&](int channel) {
        const Vector3d d = direction(channel, t);
        return Vector3d(d(0) * s + d(1) * f + d(2) * u);
    };
    const Vector3d fore = limb(ArmF);
    j[Landmark::BackElbow] = j[Landmark::BackShoulder] + h * body::kUpperArm * limb(ArmA);
    j[Landmark::BackWrist] = j[Landmark::BackElbow] + h * body::kForearm * fore;
    const Vector3d gloveFore = limb(GloveF);
    j[Landmark::LeadElbow] = j[Landmark::LeadShoulder] + h * body::kUpperArm * limb(GloveA);
    j[Landmark::LeadWrist] = j[Landmark::LeadElbow] + h * body::kForearm * gloveFore;
    j[Landmark::Glove] = j[Landmark::LeadWrist] + h * body::kHand * gloveFore;
    pose.leftHandTip = j[Landmark::BackWrist] + h * body::kHand * fore;
    pose.ballInHand = t <= releaseS_;
    j[Landmark::Ball] = pose.leftHandTip + 0.03 * fore;
    if (!pose.ballInHand) {
        // A straight flight at 24 m/s with gravity, from where it left the hand.
        const double dt = t - releaseS_;
        const Pose held = poseAt(releaseS_);
        j[Landmark::Ball] =
            held.joints.at(Landmark::Ball) + dt * Vector3d(24, 0.6, 0) - Vector3d(0, 4.905 * dt * dt, 0);
    }
    j[Landmark::Rubber] = Vector3d(0.03, 0, 0);
    j[Landmark::Ground] = Vector3d(j[Landmark::Pelvis](0), groundAt(j[Landmark::Pelvis](0)), 0);
    pose.chestForward = f;
    pose.spine = u;
    pose.headForward = face;
    return pose;
}

void Delivery::findEvents() {
    // The first time in [from, to] at which `score` is largest, to a tenth of a millisecond.
    const auto argmax = [&](double from, double to, const std::function<double(const Pose&)>& score) {
        double best = from, most = -1e300;
        for (double t = from; t <= to; t += 1e-4) {
            const double v = score(poseAt(t));
            if (v > most + 1e-12) most = v, best = t;
        }
        return best;
    };
    const auto first = [&](double from, double to, const std::function<bool(const Pose&)>& holds) {
        for (double t = from; t <= to; t += 1e-4)
            if (holds(poseAt(t))) return t;
        return to;
    };
    events_[Moment::Set] = setS_;
    events_[Moment::LiftTop] =
        argmax(setS_, breakS_, [](const Pose& p) { return p.joints.at(Landmark::LeadKnee)(1); });
    events_[Moment::HandBreak] = first(topS_, loadS_, [&](const Pose& p) {
        return (p.leftHandTip - p.joints.at(Landmark::Glove)).norm() > 0.13 * knobs_.heightM;
    });
    events_[Moment::Load] = argmax(topS_, -0.02, [](const Pose& p) {
        const Vector3d a = p.joints.at(Landmark::BackHip) - p.joints.at(Landmark::BackKnee);
        const Vector3d b = p.joints.at(Landmark::BackAnkle) - p.joints.at(Landmark::BackKnee);
        return a.dot(b) / (a.norm() * b.norm());
    });
    events_[Moment::FootTouch] = 0;
    events_[Moment::Plant] = plantS_;
    events_[Moment::Layback] = argmax(plantS_, releaseS_, [](const Pose& p) {
        return -(p.joints.at(Landmark::BackWrist) - p.joints.at(Landmark::BackElbow)).dot(p.chestForward);
    });
    events_[Moment::Release] = releaseS_;
    events_[Moment::Finish] = finishS_;
    events_[Moment::HandAboveShoulder] = first(events_[Moment::HandBreak], releaseS_, [](const Pose& p) {
        return p.joints.at(Landmark::BackWrist)(1) > p.joints.at(Landmark::BackShoulder)(1);
    });
}

} // namespace jg
