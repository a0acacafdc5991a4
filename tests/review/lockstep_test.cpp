// SPDX-License-Identifier: GPL-3.0-or-later
// Two films locked at a moment: never further apart than half a frame of the coarser.
#include "review/compare/lockstep.h"

#include <gtest/gtest.h>

#include <random>

namespace jg {
namespace {

FrameTimes steady(double fps, std::int64_t frames, double from = 0) {
    FrameTimes t;
    for (std::int64_t n = 0; n < frames; ++n) t.push_back(from + static_cast<double>(n) / fps);
    return t;
}

/// A phone's film: frames come up to a fifth too early or too late.
FrameTimes wavering(double fps, std::int64_t frames, std::mt19937& dice) {
    std::uniform_real_distribution<double> off(-0.2, 0.2);
    FrameTimes t;
    for (std::int64_t n = 0; n < frames; ++n) t.push_back((static_cast<double>(n) + off(dice)) / fps);
    return t;
}

TEST(Lockstep, StepsByTheFinerFilmAndBackAgain) {
    Lockstep l({steady(240, 480), steady(60, 120)}, {200, 40});
    EXPECT_EQ(l.frame(0), 200);
    EXPECT_EQ(l.frame(1), 40);
    for (int i = 0; i < 4; ++i) l.step(1);
    EXPECT_EQ(l.frame(0), 204);
    EXPECT_EQ(l.frame(1), 41);
    EXPECT_NEAR(l.ms(), 1000.0 / 60, 1e-9);
    for (int i = 0; i < 4; ++i) l.step(-1);
    EXPECT_EQ(l.frame(0), 200);
    EXPECT_EQ(l.frame(1), 40);
    EXPECT_NEAR(l.ms(), 0, 1e-9);
}

TEST(Lockstep, IsNeverFurtherApartThanHalfAFrameOfTheCoarser) {
    std::mt19937 dice(7);
    for (const auto& [a, b] : {std::pair{240.0, 60.0}, {240.0, 30.0}, {120.0, 59.94}, {60.0, 60.0}}) {
        Lockstep l({wavering(a, 400, dice), wavering(b, 400, dice)}, {150, 90});
        l.goTo(std::max(l.msOf(0, 0), l.msOf(1, 0)));
        int steps = 0;
        for (; !l.beyond(0) && !l.beyond(1) && steps < 2000; ++steps, l.step(1))
            // Two frames of a wavering film lie up to 1.4 of its mean length apart.
            ASSERT_LE(l.apartMs(), 0.7 * 1000 / std::min(a, b) + 1e-9) << l.ms();
        EXPECT_GT(steps, 100);
    }
    Lockstep l({steady(240, 480), steady(60, 120)}, {200, 40});
    for (l.goTo(l.msOf(1, 0)); !l.beyond(0) && !l.beyond(1); l.step(1))
        ASSERT_LE(l.apartMs(), l.mostApartMs() + 1e-9) << l.ms();
}

TEST(Lockstep, AFilmThatHasEndedStandsAndSaysSo) {
    Lockstep l({steady(60, 30), steady(60, 120)}, {20, 20});
    l.goTo(l.lastMs());
    EXPECT_TRUE(l.beyond(0));
    EXPECT_FALSE(l.beyond(1));
    EXPECT_EQ(l.frame(0), 29);
    EXPECT_EQ(l.frame(1), 119);
    l.step(-1);
    EXPECT_EQ(l.frame(1), 118);
    l.step(100);
    EXPECT_EQ(l.frame(1), 119);
}

TEST(Lockstep, GoesToTheNextPositionOfEither) {
    Lockstep l({steady(240, 480), steady(60, 120)}, {200, 40});
    const std::array<std::vector<std::int64_t>, 2> pins = {{{180, 200, 240}, {40, 43, 60}}};
    EXPECT_TRUE(l.goToNext(pins, 1));
    EXPECT_EQ(l.frame(1), 43); // 50 ms comes before 167 ms
    EXPECT_TRUE(l.goToNext(pins, 1));
    EXPECT_EQ(l.frame(0), 240);
    EXPECT_TRUE(l.goToNext(pins, 1));
    EXPECT_EQ(l.frame(1), 60);
    EXPECT_FALSE(l.goToNext(pins, 1));
    EXPECT_TRUE(l.goToNext(pins, -1));
    EXPECT_EQ(l.frame(0), 240);
}

TEST(Lockstep, OneIsNudgedWhileTheOtherStands) {
    Lockstep l({steady(240, 480), steady(60, 120)}, {200, 40});
    l.step(8);
    l.nudge(1, 2);
    EXPECT_EQ(l.frame(0), 208);
    EXPECT_EQ(l.frame(1), 44);
    EXPECT_EQ(l.lock(1), 42);
    l.nudge(1, -2);
    EXPECT_EQ(l.frame(1), 42);
    l.lockAt({10, 999});
    EXPECT_EQ(l.frame(0), 10);
    EXPECT_EQ(l.frame(1), 119);
}

TEST(Lockstep, AFilmOfOneFrameStands) {
    Lockstep l({steady(60, 1), steady(60, 50)}, {0, 10});
    l.step(3);
    EXPECT_EQ(l.frame(0), 0);
    EXPECT_EQ(l.frame(1), 13);
}

} // namespace
} // namespace jg
