// SPDX-License-Identifier: GPL-3.0-or-later
// What is read from paths, on ways whose answer is known by hand.
#include "kinematics/path.h"

#include <gtest/gtest.h>

#include <cmath>

namespace jg {
namespace {

/// Stands until frame 20, then is driven at a steady acceleration.
Path pushedOff(double sdPx) {
    Path path;
    for (int n = 0; n <= 40; ++n) {
        const double t = std::max(0, n - 20);
        path.push_back({n, {100 + 0.5 * 2 * t * t, 300}, sdPx});
    }
    return path;
}

TEST(Path, SpeedIsDistanceOverTheTrueTime) {
    const auto s = speeds(pushedOff(1), 240);
    ASSERT_EQ(s.size(), 39U);
    // At frame 30 it moves 2 x 10 px a frame: 4,800 px a second at 240.
    EXPECT_EQ(s[29].frame, 30);
    EXPECT_NEAR(s[29].value.value, 20 * 240, 1e-6);
    EXPECT_NEAR(s[29].value.sd, std::sqrt(2.0) * 120, 1e-6);
    EXPECT_TRUE(speeds(pushedOff(1), 0).empty());
    const auto back = speedsAlong(pushedOff(1), {-1, 0}, 240);
    EXPECT_NEAR(back[29].value.value, -20 * 240, 1e-6);
}

TEST(Path, NoSpeedIsMadeUpOverAGap) {
    Path path = pushedOff(1);
    path.erase(path.begin() + 10);
    for (const FrameValue& v : speeds(path, 240)) {
        EXPECT_NE(v.frame, 9);
        EXPECT_NE(v.frame, 11);
    }
}

TEST(Path, MotionStartsWhereItLeavesRest) {
    const auto start = startOfMotion(speeds(pushedOff(0.1), 240), 0.1);
    ASSERT_TRUE(start);
    // The largest speed is 38 px a frame; a tenth of it is passed between frames 21 and 22.
    EXPECT_EQ(start->frame, 21);
    EXPECT_EQ(start->plusMinus, 1);
    const auto rough = startOfMotion(speeds(pushedOff(6), 240), 0.1);
    ASSERT_TRUE(rough);
    EXPECT_GT(rough->plusMinus, 1); // a rougher path knows it less well
}

TEST(Path, RestHasNoStart) {
    Path still;
    for (int n = 0; n < 20; ++n) still.push_back({n, {100 + 0.1 * (n % 2), 300}, 2});
    EXPECT_FALSE(startOfMotion(speeds(still, 240)));
    EXPECT_FALSE(startOfMotion({}));
}

TEST(Path, HighestAndLowestSayHowSureTheyAre) {
    Path arc;
    for (int n = 0; n <= 20; ++n) arc.push_back({n, {0, 0.5 * (n - 10) * (n - 10)}, 0.1});
    EXPECT_EQ(highest(arc)->frame, 10);
    EXPECT_EQ(highest(arc)->plusMinus, 1);
    for (PathPlace& p : arc) p.sdPx = 5; // within 7 px of the top lie three frames on each side
    EXPECT_EQ(highest(arc)->plusMinus, 3);
    EXPECT_EQ(lowest(arc)->frame, 0);
    EXPECT_FALSE(highest({}));
}

TEST(Path, TheLongestStallIsFound) {
    std::vector<FrameValue> s;
    for (int n = 0; n < 30; ++n)
        s.push_back({n, {(n >= 5 && n <= 6) || (n >= 12 && n <= 18) ? 3.0 : 100.0, 1}});
    const auto stall = longestStall(s);
    ASSERT_TRUE(stall);
    EXPECT_EQ(stall->first, 12);
    EXPECT_EQ(stall->second, 18);
    EXPECT_FALSE(longestStall(std::vector<FrameValue>{{0, {5, 1}}}));
}

} // namespace
} // namespace jg
