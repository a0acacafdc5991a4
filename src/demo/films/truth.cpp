// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/truth.h"

#include <Eigen/Geometry>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace jg {

using Eigen::Vector3d;
using nlohmann::json;

namespace {

constexpr double kDeg = 180.0 / M_PI;

double angleAt(const Joints& j, Landmark a, Landmark vertex, Landmark b) {
    const Vector3d u = j.at(a) - j.at(vertex), v = j.at(b) - j.at(vertex);
    return std::acos(std::clamp(u.dot(v) / (u.norm() * v.norm()), -1.0, 1.0)) * kDeg;
}

double offLine(const Vector3d& p, const Vector3d& a, const Vector3d& b) {
    const Vector3d d = (b - a).normalized();
    return (p - a - (p - a).dot(d) * d).norm();
}

/// A place among the painted pictures, counted in those the film holds.
double inFilm(const std::vector<std::int64_t>& held, double painted) {
    const auto before = std::lower_bound(held.begin(), held.end(), painted) - held.begin();
    const std::int64_t gone = before == 0 ? 0 : held[static_cast<std::size_t>(before - 1)] - (before - 1);
    return painted - static_cast<double>(gone);
}

} // namespace

std::map<std::string, double> trueMeasures(const Delivery& d) {
    const auto at = [&](Moment m) { return d.poseAt(d.events().at(m)).joints; };
    const Joints set = at(Moment::Set), load = at(Moment::Load), plant = at(Moment::Plant),
                 release = at(Moment::Release);
    using L = Landmark;
    const double standing = set.at(L::Crown)(1) - d.groundAt(set.at(L::Pelvis)(0));
    std::map<std::string, double> m;
    m["back-knee"] = angleAt(load, L::BackHip, L::BackKnee, L::BackAnkle);
    m["leg-spread"] = angleAt(plant, L::BackAnkle, L::Pelvis, L::LeadAnkle);
    m["front-knee-plant"] = angleAt(plant, L::LeadHip, L::LeadKnee, L::LeadAnkle);
    m["front-knee-release"] = angleAt(release, L::LeadHip, L::LeadKnee, L::LeadAnkle);
    m["front-knee-change"] = m["front-knee-release"] - m["front-knee-plant"];
    m["stride"] = 100 * (plant.at(L::BackAnkle) - plant.at(L::LeadAnkle)).norm() / standing;
    const Vector3d spine = release.at(L::Neck) - release.at(L::Pelvis);
    m["trunk-lean"] = std::atan2(spine(0), spine(1)) * kDeg;
    const Vector3d chest = release.at(L::Neck) - release.at(L::BackHip);
    m["trunk-forward"] = std::atan2(chest(0), chest(1)) * kDeg;
    m["drive-line"] =
        100 / standing *
        std::max(offLine(release.at(L::BackHip), release.at(L::BackWrist), release.at(L::BackToe)),
                 offLine(release.at(L::BackKnee), release.at(L::BackWrist), release.at(L::BackToe)));
    m["head-drop"] = 100 * (set.at(L::Head)(1) - plant.at(L::Head)(1)) / standing;
    m["elbow-bend"] = angleAt(plant, L::BackShoulder, L::BackElbow, L::BackWrist);
    const Vector3d line = (plant.at(L::BackShoulder) - plant.at(L::LeadShoulder)).normalized();
    const Vector3d arm = (plant.at(L::BackElbow) - plant.at(L::BackShoulder)).normalized();
    m["elbow-height"] = (std::asin(arm(1)) - std::asin(line(1))) * kDeg;
    const auto ms = [&](Moment a, Moment b) { return 1000 * (d.events().at(b) - d.events().at(a)); };
    m["hand-early"] = ms(Moment::HandAboveShoulder, Moment::Plant);
    m["plant-to-release"] = ms(Moment::Plant, Moment::Release);
    return m;
}

std::string truthOf(const FilmOrder& order, const Delivery& d, const std::vector<std::int64_t>& held) {
    json t = {{"format", "juxtagraph-truth-1"},
              {"fps", order.fps},
              {"frames", held.size()},
              {"deliveries", order.deliveries},
              {"picturesOfOne", picturesOfOne(order, d)},
              {"hand", idOf(order.hand)},
              {"view", idOf(order.camera.view)},
              {"width", order.camera.width},
              {"height", order.camera.height},
              {"heightM", order.knobs.heightM},
              {"yawDeg", order.camera.yawDeg},
              {"rollDeg", order.camera.rollDeg},
              {"measures", trueMeasures(d)}};
    t["events"] = json::object();
    for (const auto& [moment, timeS] : d.events())
        t["events"][std::string(info(moment).id)] = {
            {"timeS", timeS}, {"frame", inFilm(held, (timeS - filmStartS(order, d)) * order.fps)}};
    const double mirror = order.hand == Hand::Left ? -1 : 1;
    t["joints"] = json::array();
    for (const std::int64_t n : held) {
        const Pose pose = d.poseAt(timeOfPicture(order, d, static_cast<double>(n)));
        const auto points = projectJoints(order, pose);
        const auto [sx, sy] = shakeOf(order, n);
        json row = json::object();
        for (const auto& [landmark, world] : pose.joints) {
            const ImagePoint p = points.at(landmark);
            row[std::string(info(landmark).id)] = {
                std::round(1e4 * world(0)) / 1e4, std::round(1e4 * world(1)) / 1e4,
                std::round(1e4 * mirror * world(2)) / 1e4, std::round(100 * (p.x + mirror * sx)) / 100,
                std::round(100 * (p.y + sy)) / 100};
        }
        t["joints"].push_back(std::move(row));
    }
    return t.dump();
}

} // namespace jg
