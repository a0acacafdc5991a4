// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/figure.h"

#include "demo/films/body.h"

#include <Eigen/Geometry>

#include <cmath>

namespace jg {

using Eigen::Vector3d;

namespace {

struct Builder {
    std::vector<RoundCone> solids;
    double h;

    RoundCone& add(const Vector3d& a, const Vector3d& b, double ra, double rb, const Cloth& cloth) {
        solids.push_back({vec3f(a),
                          vec3f(b),
                          static_cast<float>(ra * h),
                          static_cast<float>(rb * h),
                          cloth,
                          false,
                          {},
                          {}});
        return solids.back();
    }
};

void addLegs(Builder& b, const Joints& j, const Outfit& o) {
    const Cloth shoe{0.13f, 0.13f, 0.15f, 0.25f};
    const Cloth sock{0.45f, 0.15f, 0.12f, 0};
    const auto leg = [&](Landmark hip, Landmark knee, Landmark ankle, Landmark heel, Landmark toe) {
        const Vector3d &k = j.at(knee), &a = j.at(ankle);
        b.add(j.at(hip), k, 0.058, 0.041, o.pants);
        b.add(k, k + 0.45 * (a - k), 0.041, 0.040, o.pants);
        b.add(k + 0.42 * (a - k), k + 0.78 * (a - k), 0.040, 0.030, o.pants);
        b.add(k + 0.76 * (a - k), a, 0.028, 0.024, sock);
        const Vector3d lift(0, 0.018 * b.h, 0);
        b.add(j.at(heel) + lift, j.at(toe) + 0.7 * lift, 0.022, 0.016, shoe);
    };
    leg(Landmark::LeadHip, Landmark::LeadKnee, Landmark::LeadAnkle, Landmark::LeadHeel, Landmark::LeadToe);
    leg(Landmark::BackHip, Landmark::BackKnee, Landmark::BackAnkle, Landmark::BackHeel, Landmark::BackToe);
    const Vector3d across = 0.55 * (j.at(Landmark::LeadHip) - j.at(Landmark::BackHip));
    b.add(j.at(Landmark::Pelvis) - 0.5 * across, j.at(Landmark::Pelvis) + 0.5 * across, 0.066, 0.066,
          o.pants);
}

void addTrunk(Builder& b, const Pose& p, const Outfit& o) {
    const Joints& j = p.joints;
    const Cloth belt{0.14f, 0.11f, 0.09f, 0.3f};
    const Vector3d& pelvis = j.at(Landmark::Pelvis);
    const Vector3d waist = pelvis + 0.05 * b.h * p.spine;
    const Vector3d ribs = pelvis + 0.19 * b.h * p.spine;
    const Vector3d hips = (j.at(Landmark::LeadHip) - j.at(Landmark::BackHip)).normalized();
    b.add(waist - 0.035 * b.h * hips, waist + 0.035 * b.h * hips, 0.062, 0.062, belt);
    const Vector3d line = (j.at(Landmark::LeadShoulder) - j.at(Landmark::BackShoulder)).normalized();
    const Vector3d up = 0.022 * b.h * p.spine;
    for (const double side : {-1.0, 1.0}) {
        b.add(waist + up + side * 0.026 * b.h * hips, ribs + side * 0.036 * b.h * line, 0.064, 0.072,
              o.jersey);
        b.add(ribs + side * 0.036 * b.h * line,
              j.at(Landmark::Neck) - 0.05 * b.h * p.spine + side * 0.066 * b.h * line, 0.072, 0.052,
              o.jersey);
    }
    // The middle fills the fold between the two sides.
    b.add(waist + up, ribs, 0.067, 0.077, o.jersey);
    b.add(ribs, j.at(Landmark::Neck) - 0.05 * b.h * p.spine, 0.077, 0.056, o.jersey);
    b.add(j.at(Landmark::LeadShoulder), j.at(Landmark::BackShoulder), 0.047, 0.047, o.jersey);
}

void addArms(Builder& b, const Pose& p, const Outfit& o) {
    const Joints& j = p.joints;
    const auto arm = [&](Landmark shoulder, Landmark elbow, Landmark wrist) {
        const Vector3d &s = j.at(shoulder), &e = j.at(elbow), &w = j.at(wrist);
        b.add(s, s + 0.62 * (e - s), 0.042, 0.035, o.jersey);
        b.add(s + 0.55 * (e - s), e, 0.029, 0.026, o.skin);
        b.add(e, w, 0.027, 0.019, o.skin);
    };
    arm(Landmark::BackShoulder, Landmark::BackElbow, Landmark::BackWrist);
    arm(Landmark::LeadShoulder, Landmark::LeadElbow, Landmark::LeadWrist);
    b.add(j.at(Landmark::BackWrist), p.leftHandTip, 0.02, 0.017, o.skin);
    const Cloth leather{0.36f, 0.20f, 0.10f, 0.2f};
    const Vector3d reach = (j.at(Landmark::Glove) - j.at(Landmark::LeadWrist)).normalized();
    b.add(j.at(Landmark::LeadWrist) + 0.01 * reach, j.at(Landmark::Glove) + 0.02 * reach, 0.036, 0.055,
          leather);
    const Cloth ball{0.95f, 0.94f, 0.90f, 0.1f};
    b.solids.push_back({vec3f(j.at(Landmark::Ball)),
                        vec3f(j.at(Landmark::Ball) + Vector3d(0.001, 0, 0)),
                        0.040f,
                        0.040f,
                        ball,
                        false,
                        {},
                        {}});
}

void addHead(Builder& b, const Pose& p, const Outfit& o) {
    const Joints& j = p.joints;
    const Vector3d& head = j.at(Landmark::Head);
    const Vector3d up = (j.at(Landmark::Crown) - head).normalized();
    const Vector3d& face = p.headForward;
    b.add(j.at(Landmark::Neck) - 0.01 * b.h * p.spine, head - 0.03 * b.h * up, 0.032, 0.030, o.skin);
    b.add(head - 0.018 * b.h * up + 0.006 * b.h * face, head + 0.012 * b.h * up, 0.049, 0.058, o.skin);
    const Cloth hair{0.20f, 0.13f, 0.09f, 0.05f};
    b.add(head - 0.018 * b.h * face + 0.004 * b.h * up, head - 0.018 * b.h * face + 0.02 * b.h * up, 0.054,
          0.055, hair);
    RoundCone& cap = b.add(head + 0.014 * b.h * up, head + 0.018 * b.h * up, 0.0625, 0.0625, o.cap);
    cap.clipped = true;
    cap.clipAt = vec3f(head + 0.018 * b.h * up);
    cap.clipUp = vec3f((up + 0.18 * face.cross(up).cross(up)).normalized());
    const Vector3d side = face.cross(up).normalized();
    for (const double s : {-0.022, 0.0, 0.022})
        b.add(head + 0.024 * b.h * up + 0.045 * b.h * face + s * b.h * side,
              head + 0.018 * b.h * up + (0.098 - 0.4 * std::abs(s)) * b.h * face + s * b.h * side, 0.009,
              0.007, o.cap);
}

} // namespace

std::vector<RoundCone> solidsOf(const Pose& pose, double heightM, const Outfit& outfit) {
    Builder b{{}, heightM};
    addLegs(b, pose.joints, outfit);
    addTrunk(b, pose, outfit);
    addArms(b, pose, outfit);
    addHead(b, pose, outfit);
    return std::move(b.solids);
}

} // namespace jg
