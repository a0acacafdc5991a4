// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's turn from one height at two places, against the generator's own camera.
#include "kinematics/heights_turn.h"

#include "demo/films/camera.h"
#include "kinematics/geometry.h"
#include "kinematics/place.h"
#include "kinematics/propagation.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

constexpr double kAimM = 0.86; // above the ground, where the generator's camera looks

/// Two posts of a fence behind the athlete that runs to the plate, or across the field, as a camera shows it.
std::array<Upright, 2> postsSeen(const Camera& camera, double sigmaPx = 0) {
    constexpr double kPostM = 1.8;
    const View view = camera.settings().view;
    const auto at = [&](double along, double y) {
        const Eigen::Vector3d world = isSideView(view)
                                          ? Eigen::Vector3d{along + 0.6, y, view == View::Open ? -2.4 : 2.4}
                                          : Eigen::Vector3d{view == View::Front ? -2.4 : 2.4, y, along};
        return ClickedPoint{camera.project(world), sigmaPx};
    };
    return {Upright{at(-1.4, kPostM), at(-1.4, 0)}, Upright{at(1.4, kPostM), at(1.4, 0)}};
}

/// The generator's camera but for its turn.
UnturnedCamera cameraOf(const CameraSettings& s) {
    return {{s.width / 2.0, s.height / 2.0},
            {s.rollDeg, 0},
            {std::atan((s.heightM - kAimM) / s.distanceM) * kDegPerRad, 0},
            {s.width * s.distanceM / s.fieldM, 0},
            alongX(Hand::Right, s.view)};
}

/// The generator turns all cameras the same way round; here toward target or glove side counts.
double turnOf(const CameraSettings& s) {
    return s.view == View::Open || s.view == View::Front ? s.yawDeg : -s.yawDeg;
}

TEST(HeightsTurn, IsTheCamerasOwnFromEveryView) {
    for (const View view : {View::Open, View::Closed, View::Front, View::Rear})
        for (const double yaw : {-25.0, -12.0, 0.0, 7.0, 25.0}) {
            CameraSettings s;
            s.view = view;
            s.yawDeg = yaw;
            s.rollDeg = 2;
            EXPECT_NEAR(turnFromEqualHeights(postsSeen(Camera(s)), cameraOf(s)).value, turnOf(s), 1e-6)
                << nameOf(view) << " " << yaw;
        }
}

TEST(HeightsTurn, ItsErrorHoldsTheTruth) {
    std::mt19937_64 engine(11);
    std::normal_distribution<double> normal;
    const auto uniform = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    };
    int inside = 0;
    double sum = 0;
    constexpr int kTimes = 400;
    for (int i = 0; i < kTimes; ++i) {
        CameraSettings s;
        s.yawDeg = uniform(-25, 25);
        s.distanceM = uniform(5, 9);
        s.heightM = uniform(0.9, 1.5);
        s.rollDeg = uniform(-3, 3);
        auto posts = postsSeen(Camera(s), 2);
        for (Upright& u : posts)
            for (ClickedPoint* p : {&u.top, &u.foot})
                p->at = p->at + ImagePoint{2 * normal(engine), 2 * normal(engine)};
        UnturnedCamera camera = cameraOf(s);
        for (const auto& [known, sd] : {std::pair{&camera.rollDeg, 0.4},
                                        {&camera.pitchDeg, 2.0},
                                        {&camera.focalPx, 0.2 * camera.focalPx.value}}) {
            known->value += sd * normal(engine);
            known->sd = sd;
        }
        const Estimate e = turnFromEqualHeights(posts, camera);
        ASSERT_TRUE(std::isfinite(e.value));
        inside += std::abs(e.value - turnOf(s)) < e.half95();
        sum += e.half95();
    }
    EXPECT_GE(inside, kTimes * 93 / 100);
    EXPECT_LT(sum / kTimes, 12); // degrees: still of use
}

TEST(HeightsTurn, OnOneSpotThereIsNone) {
    const Upright post{{{600, 200}, 2}, {{600, 500}, 2}}, flat{{{600, 200}, 2}, {{600, 200}, 2}};
    const UnturnedCamera camera{{640, 360}, {0, 0}, {0, 0}, {1500, 0}, 1};
    EXPECT_TRUE(std::isnan(turnFromEqualHeights({post, post}, camera).value));
    EXPECT_TRUE(std::isnan(turnFromEqualHeights({flat, flat}, camera).value));
}

} // namespace
} // namespace jg
