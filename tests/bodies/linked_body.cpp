// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/linked_body.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

namespace jg::test {

namespace {

using Eigen::Vector3d;
using L = Landmark;

constexpr double kRad = M_PI / 180;

Vector3d turned(const Vector3d& v, const Vector3d& about, double deg) {
    return Eigen::AngleAxisd(deg * kRad, about.normalized()) * v;
}

/// Level, so many degrees from third base toward the plate.
Vector3d level(double yawDeg) {
    return {std::sin(yawDeg * kRad), 0, std::cos(yawDeg * kRad)};
}

const Vector3d kUp{0, 1, 0};

/// The way to the lead side of somebody who faces `front`.
Vector3d leadOf(const Vector3d& front) {
    return kUp.cross(front).normalized();
}

/// What a joint is usually turned to at a key position, with how far bodies differ: mean and sd, degrees.
struct Usual {
    double mean, sd;
};

/// One value for each of the nine key positions, in their order.
template <typename T>
using KeyPoses = std::array<T, 9>;

std::size_t keyOf(Moment moment) {
    return static_cast<std::size_t>(moment);
}

struct TrunkAngles {
    Usual pelvis, shoulders, forward, side, tilt; ///< tilt: lead shoulder up
};

constexpr KeyPoses<TrunkAngles> kTrunk = {{
    {{0, 6}, {0, 5}, {3, 3}, {0, 3}, {0, 3}},              // Set
    {{-18, 12}, {-8, 10}, {-2, 5}, {0, 4}, {2, 5}},        // LiftTop
    {{-12, 12}, {-8, 10}, {0, 5}, {-2, 5}, {3, 6}},        // HandBreak
    {{-4, 12}, {-6, 10}, {2, 6}, {-3, 6}, {6, 7}},         // Load
    {{28, 14}, {-2, 13}, {-2, 7}, {0, 6}, {8, 8}},         // FootTouch
    {{42, 13}, {8, 14}, {0, 8}, {3, 7}, {7, 8}},           // Plant
    {{76, 11}, {66, 15}, {20, 9}, {16, 9}, {-4, 8}},       // Layback
    {{90, 10}, {100, 12}, {38, 10}, {17, 8}, {-14, 9}},    // Release
    {{108, 14}, {135, 16}, {62, 12}, {18, 10}, {-24, 12}}, // Finish
}};

struct ArmAngles {
    Usual raised, ahead, bend, turn; ///< from hanging; before the shoulders; elbow; about the upper arm
};

constexpr KeyPoses<ArmAngles> kThrowingArm = {{
    {{25, 8}, {55, 12}, {100, 12}, {70, 12}},   // Set
    {{30, 9}, {55, 13}, {102, 14}, {70, 14}},   // LiftTop
    {{28, 10}, {35, 15}, {80, 18}, {30, 20}},   // HandBreak
    {{45, 14}, {-10, 14}, {35, 20}, {-60, 30}}, // Load
    {{76, 14}, {-14, 12}, {75, 22}, {25, 32}},  // FootTouch
    {{87, 13}, {-10, 11}, {90, 18}, {60, 30}},  // Plant
    {{90, 10}, {6, 10}, {86, 16}, {165, 12}},   // Layback
    {{90, 10}, {8, 10}, {24, 10}, {95, 18}},    // Release
    {{70, 18}, {95, 18}, {35, 18}, {60, 25}},   // Finish
}};

constexpr KeyPoses<ArmAngles> kGloveArm = {{
    {{25, 8}, {55, 12}, {100, 12}, {70, 12}},  // Set
    {{30, 9}, {55, 13}, {102, 14}, {70, 14}},  // LiftTop
    {{32, 12}, {35, 15}, {80, 20}, {50, 22}},  // HandBreak
    {{62, 15}, {22, 15}, {45, 22}, {30, 25}},  // Load
    {{82, 14}, {20, 15}, {32, 20}, {20, 25}},  // FootTouch
    {{76, 15}, {24, 16}, {55, 25}, {40, 28}},  // Plant
    {{48, 15}, {22, 16}, {105, 20}, {60, 25}}, // Layback
    {{36, 15}, {10, 18}, {118, 18}, {60, 25}}, // Release
    {{34, 16}, {0, 20}, {110, 20}, {60, 25}},  // Finish
}};

} // namespace

LinkedBody::LinkedBody(std::mt19937_64& engine)
    : engine_(&engine) {
    drawBuild();
    drawHabits();
    constexpr double kForgetsS = 0.4; // own choice
    poses_.reserve(times_.size());
    const Joints* before = nullptr;
    for (const auto& [moment, time] : times_) {
        goesOn_ = before ? std::exp((poses_.back().first - time) / kForgetsS) : 0;
        poses_.emplace_back(time, drawPose(moment, before));
        before = &poses_.back().second;
        last_ = now_;
    }
    engine_ = nullptr;
}

double LinkedBody::normal(double mean, double sd, int place) {
    const auto before = last_.find(place);
    double draw = normal_(*engine_);
    if (before != last_.end()) draw = goesOn_ * before->second + std::sqrt(1 - goesOn_ * goesOn_) * draw;
    now_[place] = draw;
    return mean + sd * draw;
}

// Segment lengths are those of grown people and children alike within these spreads: own choice.
void LinkedBody::drawBuild() {
    heightM_ = std::uniform_real_distribution<>(1.30, 2.0)(*engine_);
    const auto part = [&](double mean) { return mean * std::exp(normal(0, 0.06)); };
    build_ = {part(0.240), part(0.240), part(0.150), part(0.042), part(0.055), part(0.285),
              part(0.118), part(0.180), part(0.150), part(0.055), part(0.125)};
}

void LinkedBody::drawHabits() {
    stride_ = normal(0, 6);
    turn_ = normal(0, 5);
    slot_ = normal(0, 12);
    opens_ = normal(0, 10);
    lean_ = normal(0, 7);
    const double tempo = std::exp(normal(0, 0.12)), quick = std::exp(normal(0, 0.08));
    times_ = {{Moment::Set, -1.0 * tempo},
              {Moment::LiftTop, -0.55 * tempo},
              {Moment::HandBreak, -0.38 * tempo},
              {Moment::Load, -0.2 * tempo},
              {Moment::FootTouch, 0},
              {Moment::Plant, 0.04 * quick},
              {Moment::Layback, 0.145 * quick},
              {Moment::Release, 0.185 * quick},
              {Moment::Finish, 0.5 * quick}};
}

LinkedBody::Joints LinkedBody::drawPose(Moment moment, const Joints* before) {
    const bool onFront = moment == Moment::Layback || moment == Moment::Release || moment == Moment::Finish;
    for (int again = 0; again < 20000; ++again) {
        Joints pose = onFront ? onFrontFoot(moment, *before) : onBackFoot(moment);
        const double lead = pose.at(L::LeadAnkle)(1) / heightM_, back = pose.at(L::BackAnkle)(1) / heightM_;
        const double pelvis = pose.at(L::Pelvis)(1) / heightM_;
        bool stands = pelvis > 0.2;
        switch (moment) {
        case Moment::Set:
            stands = std::abs(lead - back) < 0.006;
            break;
        case Moment::LiftTop:
            stands = lead > 0.18;
            break;
        case Moment::HandBreak:
        case Moment::Load:
            stands = lead > 0.03 && pelvis > 0.3;
            break;
        case Moment::FootTouch:
        case Moment::Plant: // the mound falls
            stands = lead - build_.ankle > -0.09 && lead - build_.ankle < -0.02 && pelvis > 0.25;
            break;
        default:
            stands = back > 0.03 && pelvis > 0.25 && pelvis < 0.5;
        }
        if (stands) return pose;
    }
    throw std::runtime_error("no pose of this body stands");
}

// From the back foot up: shin, thigh, pelvis, then the lead leg down from there.
LinkedBody::Joints LinkedBody::onBackFoot(Moment moment) {
    Joints pose;
    const double h = heightM_;
    const TrunkAngles angles = kTrunk[keyOf(moment)];
    const double yaw = normal(angles.pelvis.mean + turn_, angles.pelvis.sd);
    const Vector3d lead = leadOf(level(yaw));
    const bool striding = moment == Moment::FootTouch || moment == Moment::Plant;
    const double bend = moment == Moment::Set         ? normal(12, 5)
                        : moment == Moment::LiftTop   ? normal(15, 7)
                        : moment == Moment::HandBreak ? normal(38, 10)
                        : moment == Moment::Load      ? normal(66, 13)
                                                      : normal(24, 10);
    const double push = moment == Moment::Set         ? normal(-11, 3)
                        : moment == Moment::LiftTop   ? normal(0, 3)
                        : moment == Moment::HandBreak ? normal(5, 5)
                        : moment == Moment::Load      ? normal(18, 7)
                                                      : normal(52, 5); // of the whole leg toward the plate
    const Vector3d kneeTo = level(normal(striding ? 55 : 8, 14));
    const double share = std::clamp(normal(0.5, 0.12), 0.2, 0.8);
    const auto leg = [&](double tilt) {
        Vector3d v = turned(kUp, kUp.cross(kneeTo), tilt);
        return turned(v, Vector3d(0, 0, 1), -push).eval();
    };
    const Vector3d ankle{normal(0.07, 0.012) * h,
                         (build_.ankle + (striding ? std::abs(normal(0.06, 0.02)) : 0)) * h,
                         normal(0, 0.02) * h};
    const Vector3d knee = ankle + build_.shank * h * leg(bend * share);
    const Vector3d hip = knee + build_.thigh * h * leg(-bend * (1 - share));
    pose[L::BackAnkle] = ankle, pose[L::BackKnee] = knee, pose[L::BackHip] = hip;
    pose[L::Pelvis] = hip + build_.hips * h * lead;
    pose[L::LeadHip] = hip + 2 * build_.hips * h * lead;
    addFoot(pose, false, ankle, normal(striding ? 35 : 0, 12), striding ? normal(40, 10) : 0);

    const double raised = moment == Moment::Set         ? normal(11, 3)
                          : moment == Moment::LiftTop   ? normal(95, 12)
                          : moment == Moment::HandBreak ? normal(75, 14)
                          : moment == Moment::Load      ? normal(50, 10)
                                                        : normal(64, 7);
    const double leadBend = moment == Moment::Set         ? normal(10, 4)
                            : moment == Moment::LiftTop   ? normal(95, 15)
                            : moment == Moment::HandBreak ? normal(75, 18)
                            : moment == Moment::Load      ? normal(40, 15)
                                                          : normal(42, 10);
    const double way = moment == Moment::LiftTop ? normal(20, 15) : normal(90 - stride_, 6);
    const Vector3d out = level(way);
    const Vector3d thigh = turned(-kUp, (-kUp).cross(out), raised);
    const Vector3d shin = turned(thigh, out.cross(-kUp), leadBend);
    pose[L::LeadKnee] = pose[L::LeadHip] + build_.thigh * h * thigh;
    pose[L::LeadAnkle] = pose[L::LeadKnee] + build_.shank * h * shin;
    addFoot(pose, true, pose[L::LeadAnkle], normal(striding ? 75 : 5, 12), normal(striding ? 0 : -10, 8));
    addUpperBody(moment, pose);
    return pose;
}

// From the planted front foot up, and the back leg down from the pelvis.
LinkedBody::Joints LinkedBody::onFrontFoot(Moment moment, const Joints& before) {
    Joints pose;
    const double h = heightM_;
    const Vector3d ankle = before.at(L::LeadAnkle);
    const double yaw = normal(kTrunk[keyOf(moment)].pelvis.mean, kTrunk[keyOf(moment)].pelvis.sd);
    const Vector3d lead = leadOf(level(yaw)), out = level(90 - stride_ + normal(0, 6));
    const double shin = moment == Moment::Layback ? normal(14, 5) : normal(10, 6); // back from upright
    const double bend = moment == Moment::Layback   ? normal(40, 10)
                        : moment == Moment::Release ? normal(34, 12)
                                                    : normal(20, 12);
    const Vector3d shank = turned(kUp, kUp.cross(-out), shin);
    const Vector3d thigh = turned(shank, kUp.cross(-out), bend);
    pose[L::LeadAnkle] = ankle;
    pose[L::LeadKnee] = ankle + build_.shank * h * turned(shank, out, normal(0, 6));
    pose[L::LeadHip] = pose[L::LeadKnee] + build_.thigh * h * thigh;
    pose[L::Pelvis] = pose[L::LeadHip] - build_.hips * h * lead;
    pose[L::BackHip] = pose[L::LeadHip] - 2 * build_.hips * h * lead;
    for (const L foot : {L::LeadHeel, L::LeadToe}) pose[foot] = before.at(foot);

    const double trail = moment == Moment::Finish ? normal(-20, 20) : normal(38, 10);
    const double backBend = moment == Moment::Finish ? normal(60, 20) : normal(45, 12);
    const Vector3d behind = level(-90 + normal(0, 10));
    const Vector3d backThigh = turned(-kUp, (-kUp).cross(behind), trail);
    const Vector3d backShin = turned(backThigh, (-kUp).cross(behind), backBend);
    pose[L::BackKnee] = pose[L::BackHip] + build_.thigh * h * backThigh;
    pose[L::BackAnkle] = pose[L::BackKnee] + build_.shank * h * backShin;
    addFoot(pose, false, pose[L::BackAnkle], normal(70, 15), normal(60, 12));
    addUpperBody(moment, pose);
    return pose;
}

void LinkedBody::addFoot(Joints& pose, bool lead, const Vector3d& ankle, double yawDeg, double pitchDeg) {
    const double h = heightM_;
    const Vector3d way = level(yawDeg);
    const Vector3d toe = turned(way, kUp.cross(way), pitchDeg); // heel up
    const Vector3d down = turned(-kUp, kUp.cross(way), pitchDeg);
    const Vector3d sole = ankle + build_.ankle * h * down;
    pose[lead ? L::LeadHeel : L::BackHeel] = sole - 0.25 * build_.foot * h * toe;
    pose[lead ? L::LeadToe : L::BackToe] = sole + 0.75 * build_.foot * h * toe;
}

void LinkedBody::addUpperBody(Moment moment, Joints& pose) {
    const double h = heightM_;
    const TrunkAngles a = kTrunk[keyOf(moment)];
    const bool late = moment == Moment::Layback || moment == Moment::Release || moment == Moment::Finish;
    const bool landing = moment == Moment::FootTouch || moment == Moment::Plant;
    const double yaw = normal(a.shoulders.mean + (landing ? opens_ : turn_), a.shoulders.sd);
    const double forward = normal(a.forward.mean + (late ? lean_ : 0), a.forward.sd);
    const double side = normal(a.side.mean + (late ? slot_ : 0), a.side.sd);
    Trunk trunk;
    trunk.pelvis = pose.at(L::Pelvis);
    const Vector3d chest = level(yaw);
    // At set and lift a body bows toward its chest, later toward the plate.
    const Vector3d bow = (late || landing) ? Vector3d(1, 0, 0) : chest;
    trunk.up = (kUp + std::tan(std::min(forward, 75.0) * kRad) * bow +
                std::tan(std::clamp(side, -60.0, 60.0) * kRad) * leadOf(bow))
                   .normalized();
    trunk.shouldersLead = turned(leadOf(chest), chest, -normal(a.tilt.mean, a.tilt.sd));
    trunk.front = chest;
    const double curve = std::abs(normal(0.012, 0.012));
    const Vector3d neck = trunk.pelvis + build_.trunk * h * trunk.up;
    pose[L::MidBack] = trunk.pelvis + 0.55 * build_.trunk * h * trunk.up - curve * h * chest;
    pose[L::Neck] = neck + 0.02 * h * trunk.up;
    const Vector3d back = -normal(0.01, 0.01) * h * chest; // shoulder blades drawn back
    pose[L::LeadShoulder] = neck + build_.shoulders * h * trunk.shouldersLead + back;
    pose[L::BackShoulder] = neck - build_.shoulders * h * trunk.shouldersLead + back;
    addHead(pose, trunk);
    addArm(pose, trunk, moment, true);
    addArm(pose, trunk, moment, false);
}

void LinkedBody::addHead(Joints& pose, const Trunk& trunk) {
    const double h = heightM_;
    const Vector3d up = (trunk.up + kUp + Vector3d(normal(0, 0.1), 0, normal(0, 0.1))).normalized();
    const Vector3d eyes = level(normal(80, 15)); // to the plate
    pose[L::Head] = pose.at(L::Neck) + 0.085 * h * up;
    pose[L::Crown] = pose.at(L::Neck) + (0.085 + build_.head / 2) * h * up;
    pose[L::Chin] = pose.at(L::Neck) + 0.03 * h * up + 0.05 * h * eyes;
}

void LinkedBody::addArm(Joints& pose, const Trunk& trunk, Moment moment, bool throwing) {
    const double h = heightM_;
    const ArmAngles a = throwing ? kThrowingArm[keyOf(moment)] : kGloveArm[keyOf(moment)];
    const Vector3d out = throwing ? Vector3d(-trunk.shouldersLead) : trunk.shouldersLead;
    const double raised = normal(a.raised.mean, a.raised.sd) * kRad,
                 ahead = normal(a.ahead.mean, a.ahead.sd) * kRad;
    const Vector3d upper = (std::sin(raised) * (std::cos(ahead) * out + std::sin(ahead) * trunk.front) -
                            std::cos(raised) * trunk.up)
                               .normalized();
    // About the upper arm: 0 = the forearm before the chest, 90 = upward.
    const Vector3d before = (trunk.front - trunk.front.dot(upper) * upper).normalized();
    Vector3d high = upper.cross(before);
    if (high.dot(trunk.up) < 0) high = -high;
    const double turn = normal(a.turn.mean, a.turn.sd) * kRad, bend = normal(a.bend.mean, a.bend.sd) * kRad;
    const Vector3d fore =
        std::cos(bend) * upper + std::sin(std::abs(bend)) * (std::cos(turn) * before + std::sin(turn) * high);
    const L shoulder = throwing ? L::BackShoulder : L::LeadShoulder,
            elbow = throwing ? L::BackElbow : L::LeadElbow, wrist = throwing ? L::BackWrist : L::LeadWrist;
    pose[elbow] = pose.at(shoulder) + build_.upperArm * h * upper;
    pose[wrist] = pose.at(elbow) + build_.forearm * h * fore.normalized();
    pose[throwing ? L::Ball : L::Glove] = pose.at(wrist) + build_.hand * h * fore.normalized();
}

double LinkedBody::groundAt(double x) const {
    const Joints& planted = poses_[5].second; // at plant
    const Vector3d foot = planted.at(L::LeadAnkle);
    const double fall = foot(1) - build_.ankle * heightM_;
    return fall * std::clamp((x - 0.15) / (foot(0) - 0.15), 0.0, 1.0);
}

LinkedBody::Joints LinkedBody::at(double timeS) const {
    const auto after = std::find_if(poses_.begin() + 1, poses_.end() - 1,
                                    [&](const auto& pose) { return pose.first >= timeS; });
    const auto before = after - 1;
    const auto first = before == poses_.begin() ? before : before - 1;
    const auto last = after + 1 == poses_.end() ? after : after + 1;
    const double span = after->first - before->first;
    const double s = (timeS - before->first) / span;
    Joints joints;
    for (const auto& [landmark, p] : before->second) {
        const Vector3d q = after->second.at(landmark);
        // A cubic through four poses, each slope by its neighbours (Catmull and Rom 1974, from memory).
        const auto slope = [&](const auto& a, const auto& b) -> Vector3d {
            return (b->second.at(landmark) - a->second.at(landmark)) / (b->first - a->first) * span;
        };
        const Vector3d m0 = slope(first, after), m1 = slope(before, last);
        const double s2 = s * s, s3 = s2 * s;
        joints[landmark] =
            (2 * s3 - 3 * s2 + 1) * p + (s3 - 2 * s2 + s) * m0 + (-2 * s3 + 3 * s2) * q + (s3 - s2) * m1;
    }
    const Vector3d pelvis = joints.at(L::Pelvis);
    joints[L::Ground] = {pelvis(0), groundAt(pelvis(0)), pelvis(2)};
    joints[L::Rubber] = {0, 0, 0};
    return joints;
}

} // namespace jg::test
