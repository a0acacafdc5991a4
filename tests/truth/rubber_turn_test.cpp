// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's turn from the rubber's corners, against the generator's own camera.
#include "kinematics/rubber_turn.h"

#include "demo/films/camera.h"
#include "kinematics/geometry.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

/// The corners of a rubber at the origin as the camera shows them; its depth runs along z.
RubberCorners cornersSeen(const Camera& camera, RubberSize size = kFullRubber) {
    const double near = (camera.settings().view == View::Open ? 0.5 : -0.5) * size.longM,
                 ahead = size.shortM / 2;
    const auto at = [&](double x, double z) { return ClickedPoint{camera.project({x, 0, z}), 1.5}; };
    return {at(ahead, near), at(-ahead, near), at(ahead, -near), size};
}

CameraSettings from(View view, double yawDeg) {
    CameraSettings s;
    s.view = view;
    s.yawDeg = yawDeg;
    return s;
}

constexpr ImagePoint kCentre{640, 360};

TEST(RubberTurn, IsTheCamerasOwnFromBothSides) {
    for (const View view : {View::Open, View::Closed})
        for (const double yaw : {-25.0, -12.0, 0.0, 7.0, 25.0}) {
            const Camera camera(from(view, yaw));
            const int along = targetDirectionX(Hand::Right, view);
            const Estimate e = turnFromRubber(cornersSeen(camera), kCentre, {0, 0}, {6.5, 0}, along);
            // Turned toward the plate is one way round on the open side, the other on the closed.
            EXPECT_NEAR(e.value, view == View::Open ? yaw : -yaw, 0.05) << nameOf(view) << " " << yaw;
        }
}

TEST(RubberTurn, OfAYouthRubberByItsOwnSize) {
    const Camera camera(from(View::Open, 12));
    RubberCorners corners = cornersSeen(camera, kYouthRubber);
    EXPECT_NEAR(turnFromRubber(corners, kCentre, {0, 0}, {6.5, 0}, 1).value, 12, 0.05);
    corners.size = kFullRubber; // taken for the full one it tells another turn
    EXPECT_GT(std::abs(turnFromRubber(corners, kCentre, {0, 0}, {6.5, 0}, 1).value - 12), 0.3);
}

TEST(RubberTurn, ItsErrorHoldsTheTruth) {
    std::mt19937_64 engine(7);
    std::normal_distribution<double> normal;
    std::uniform_real_distribution<double> yaws(-20, 20), distances(5.3, 8.7), rolls(-3, 3);
    int inside = 0;
    double widest = 0;
    constexpr int kTimes = 400;
    for (int i = 0; i < kTimes; ++i) {
        CameraSettings s = from(View::Open, yaws(engine));
        s.distanceM = distances(engine);
        s.rollDeg = rolls(engine);
        RubberCorners c = cornersSeen(Camera(s));
        for (ClickedPoint* p : {&c.nearFront, &c.nearBack, &c.farFront})
            p->at = p->at + ImagePoint{1.5 * normal(engine), 1.5 * normal(engine)};
        const Estimate e = turnFromRubber(c, kCentre, {s.rollDeg + 0.4 * normal(engine), 0.4}, {7.0, 1.0},
                                          targetDirectionX(Hand::Right, View::Open));
        ASSERT_TRUE(std::isfinite(e.value));
        inside += std::abs(e.value - s.yawDeg) < e.half95();
        widest = std::max(widest, e.half95());
    }
    EXPECT_GE(inside, kTimes * 92 / 100);
    EXPECT_LT(widest, 12); // degrees: still of use
}

TEST(RubberTurn, CornersOnOneSpotAreNoRubber) {
    const ClickedPoint p{{600, 500}, 1.5};
    EXPECT_TRUE(std::isnan(turnFromRubber({p, p, p}, kCentre, {0, 0}, {7, 1}, 1).value));
}

} // namespace
} // namespace jg
