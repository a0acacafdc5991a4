// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's roll from lines that are known to be level or upright, and against the generator's camera.
#include "kinematics/roll.h"

#include "demo/films/camera.h"
#include "kinematics/geometry.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

constexpr double kCameraAimM = 0.86; // above the ground, where the generator's camera looks

TEST(Roll, PlumbAndLevelLinesGiveTheSame) {
    const ImagePoint down = rotated({0, 300}, 5), along = rotated({300, 0}, 5);
    for (const ImagePoint v : {down, along, ImagePoint{-down.x, -down.y}, ImagePoint{-along.x, -along.y}}) {
        const Estimate roll = rollFromLine({{100, 100}, 2}, {{100 + v.x, 100 + v.y}, 2});
        EXPECT_NEAR(roll.value, 5, 1e-9);
        EXPECT_NEAR(roll.sd, 2 * std::sqrt(2.0) / 300 * kDegPerRad, 1e-9);
    }
}

TEST(Roll, APostFarFromTheMiddleIsUprightUnderACameraThatLooksDown) {
    for (const double roll : {-4.0, 0.0, 3.0})
        for (const double aside : {-1.5, 0.4, 1.5}) {
            CameraSettings s;
            s.rollDeg = roll;
            s.yawDeg = 12;
            s.heightM = 1.6;
            const Camera camera(s);
            const ClickedPoint low{camera.project({0.7 + aside, 0.1, 0}), 1},
                high{camera.project({0.7 + aside, 1.9, 0}), 1};
            const double pitch = std::atan((s.heightM - kCameraAimM) / s.distanceM) * kDegPerRad;
            const CameraPlace place{{s.width / 2.0, s.height / 2.0}, {}, {pitch, 1}, {}};
            const Estimate e = rollFromPlumb(low, high, place, s.width * s.distanceM / s.fieldM);
            EXPECT_NEAR(e.value, roll, 0.02) << aside;
            if (std::abs(aside) > 1) {
                EXPECT_GT(std::abs(rollFromLine(low, high).value - roll), 0.5);
                EXPECT_GT(e.sd, 1.5 * rollFromLine(low, high).sd); // a degree of pitch counts
            }
        }
}

TEST(Roll, ALevelLineKeepsItsRollAndOneSpotHasNone) {
    const CameraPlace place{{640, 360}, {}, {6, 2}, {}};
    const ClickedPoint left{{100, 300}, 1}, right{{500, 321}, 1};
    EXPECT_EQ(rollFromPlumb(left, right, place, 1500).value, rollFromLine(left, right).value);
    EXPECT_EQ(rollFromPlumb(left, left, place, 1500).value, 0);
    EXPECT_EQ(rollFromPlumb(left, left, place, 1500).sd, 0);
}

} // namespace
} // namespace jg
