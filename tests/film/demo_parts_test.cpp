// SPDX-License-Identifier: GPL-3.0-or-later
// The generator's parts: curve, camera, raster.
#include "demo/films/camera.h"
#include "demo/films/curve.h"
#include "demo/films/random_orders.h"
#include "demo/films/raster.h"
#include "demo/films/truth.h"
#include "kinematics/roll.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

TEST(Curve, GoesThroughItsKeysAndNeverOvershoots) {
    Curve c;
    const std::pair<double, double> keys[] = {{0, 1}, {1, 1}, {1.5, 4}, {3, 4}, {3.2, -2}};
    for (const auto& [t, v] : keys) c.add(t, v);
    for (const auto& [t, v] : keys) EXPECT_NEAR(c.at(t), v, 1e-12);
    for (double t = -1; t < 4; t += 0.01) {
        EXPECT_LE(c.at(t), 4 + 1e-12);
        EXPECT_GE(c.at(t), -2 - 1e-12);
    }
    EXPECT_EQ(c.at(-5), 1);
    EXPECT_EQ(c.at(9), -2);
    EXPECT_EQ(c.at(0.5), 1); // a planted foot does not slide
    EXPECT_EQ(Curve{}.at(3), 0);
}

TEST(Camera, ProjectsAlongItsOwnRays) {
    for (const View view : {View::Open, View::Closed, View::Front, View::Rear}) {
        CameraSettings s;
        s.view = view;
        s.yawDeg = 12;
        s.rollDeg = 4;
        const Camera camera(s);
        for (const ImagePoint p : {ImagePoint{100, 100}, ImagePoint{640, 360}, ImagePoint{1200, 50}}) {
            const ImagePoint back = camera.project(camera.eye() + 5.3 * camera.ray(p.x, p.y));
            EXPECT_NEAR(back.x, p.x, 1e-6);
            EXPECT_NEAR(back.y, p.y, 1e-6);
        }
    }
}

TEST(Camera, OnTheOpenSideThePlateIsToTheRightAndUpIsUp) {
    const Camera camera{CameraSettings{}};
    const ImagePoint a = camera.project({0, 1, 0}), toPlate = camera.project({1, 1, 0}),
                     up = camera.project({0, 2, 0});
    EXPECT_GT(toPlate.x, a.x);
    EXPECT_LT(up.y, a.y);
    CameraSettings closed;
    closed.view = View::Closed;
    const Camera other(closed);
    EXPECT_LT(other.project({1, 1, 0}).x, other.project({0, 1, 0}).x);
}

TEST(Camera, RollTurnsThePicturesLevelClockwise) {
    CameraSettings s;
    s.rollDeg = 6;
    const Camera camera(s);
    const ImagePoint a = camera.project({0, 0.86, 0}), b = camera.project({1.4, 0.86, 0});
    EXPECT_NEAR(std::atan2(b.y - a.y, b.x - a.x) * 180 / M_PI, 6, 0.3);
    EXPECT_NEAR(rollFromLine({a, 1}, {b, 1}).value, 6, 0.3);
}

TEST(Raster, AFigureIsSeenWhereItsJointsAre) {
    const FilmOrder order = test::smallOrder();
    const Delivery d(order.knobs);
    const Camera camera(order.camera);
    const Pose pose = d.poseAt(0.034);
    Canvas canvas = paintShed(camera, d);
    const Canvas empty = canvas;
    Exposure exposure;
    exposure.begin(canvas.box);
    exposure.add(camera, solidsOf(pose, order.knobs.heightM, order.outfit), 0.5, 0.5);
    exposure.over(canvas, 1);
    for (const Landmark l : {Landmark::Head, Landmark::LeadKnee, Landmark::BackKnee, Landmark::MidBack,
                             Landmark::LeadElbow, Landmark::Ball}) {
        const ImagePoint p = camera.project(pose.joints.at(l));
        const int x = static_cast<int>(p.x), y = static_cast<int>(p.y);
        EXPECT_NE(canvas.at(x, y)[0], empty.at(x, y)[0]) << info(l).id;
    }
    EXPECT_EQ(canvas.at(3, 3)[0], empty.at(3, 3)[0]);
}

TEST(Raster, TheShadowDarkensTheGroundOnly) {
    const FilmOrder order = test::smallOrder();
    const Delivery d(order.knobs);
    const Camera camera(order.camera);
    Canvas canvas = paintShed(camera, d);
    const Canvas before = canvas;
    paintShadow(canvas, camera, solidsOf(d.poseAt(-1.2), order.knobs.heightM, order.outfit), d);
    int darker = 0;
    for (int y = 0; y < canvas.box.y1; ++y)
        for (int x = 0; x < canvas.box.x1; ++x) {
            EXPECT_LE(canvas.at(x, y)[1], before.at(x, y)[1]);
            if (canvas.at(x, y)[1] < before.at(x, y)[1]) {
                ++darker;
                EXPECT_GT(y, canvas.box.y1 / 2);
            }
        }
    EXPECT_GT(darker, 20);
}

TEST(Orders, AreTheSameFromTheSameSeedAndDifferOtherwise) {
    const FilmOrder a = randomOrder(3, 7), b = randomOrder(3, 7), c = randomOrder(4, 7);
    EXPECT_EQ(a.knobs.heightM, b.knobs.heightM);
    EXPECT_EQ(a.seed, b.seed);
    EXPECT_NE(a.knobs.heightM, c.knobs.heightM);
    for (int n = 0; n < 50; ++n) {
        const FilmOrder o = randomOrder(9, n);
        EXPECT_GE(o.knobs.heightM, 1.4);
        EXPECT_LE(o.knobs.heightM, 1.95);
        EXPECT_TRUE(o.fps == 30 || o.fps == 60 || o.fps == 120 || o.fps == 240);
    }
}

TEST(Shake, IsBoundedAndOffWhenNotAskedFor) {
    FilmOrder o = test::smallOrder();
    EXPECT_EQ(shakeOf(o, 12), (std::pair{0.0, 0.0}));
    o.shakePx = 3;
    double most = 0;
    for (int n = 0; n < 500; ++n)
        most = std::max({most, std::abs(shakeOf(o, n).first), std::abs(shakeOf(o, n).second)});
    EXPECT_LE(most, 3);
    EXPECT_GT(most, 1);
}

} // namespace
} // namespace jg
