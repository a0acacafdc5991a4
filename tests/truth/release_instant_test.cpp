// SPDX-License-Identifier: GPL-3.0-or-later
// When the ball leaves the hand, between two frames.
#include "demo/films/film_maker.h"
#include "kinematics/measure.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

const MeasureDefinition& instant() {
    return *test::playbook().measure("release-instant");
}

/// The wrist goes 10 px a frame; the ball is 5 ahead while held, then gains 20 a frame, from `parted` on.
MeasureInput byHand(double parted, int along, double sigmaPx = 1) {
    MeasureInput in;
    in.captureFps = 100;
    in.view = View::Open;
    in.hand = along > 0 ? Hand::Right : Hand::Left;
    for (int n = 0; n <= 2; ++n) {
        const std::string name = n == 0 ? "" : "-" + std::to_string(n);
        const double ahead = 5 + 20 * std::max(0.0, n - parted);
        in.points["wrist" + name] = {{600 + along * 10.0 * n, 200}, sigmaPx};
        in.points["ball" + name] = {{600 + along * (10.0 * n + ahead), 200}, sigmaPx};
    }
    return in;
}

TEST(ReleaseInstant, ByHandForBothHands) {
    for (const int along : {1, -1}) {
        const MeasureValue v = evaluate(instant(), byHand(0.4, along, 0));
        ASSERT_TRUE(v.value) << v.reason;
        EXPECT_NEAR(*v.value, 4, 1e-9); // 0.4 of a frame of 10 ms
        EXPECT_EQ(v.unit, "ms");
        EXPECT_GE(v.low95, 0);
        EXPECT_LE(v.high95, 10);
    }
}

TEST(ReleaseInstant, TheBracketIsTheWidestItCanBe) {
    const MeasureValue v = evaluate(instant(), byHand(0.5, 1, 30));
    ASSERT_TRUE(v.value);
    EXPECT_NEAR(v.low95, 0.25, 0.01); // any instant in it alike: 95 % of 10 ms
    EXPECT_NEAR(v.high95, 9.75, 0.01);
    EXPECT_FALSE(v.warnings.empty());
}

TEST(ReleaseInstant, ABallThatHardlyLeavesHasAnErrorToo) {
    MeasureInput in = byHand(0.4, 1, 4);
    for (int n = 1; n <= 2; ++n) // it gains a third of a pixel a frame on the wrist
        in.points["ball-" + std::to_string(n)].at.x = 605 + 10.0 * n + 0.3 * (n - 0.4);
    const MeasureValue v = evaluate(instant(), in);
    ASSERT_TRUE(v.value) << v.reason;
    EXPECT_NEAR(v.sd, 10 / std::sqrt(12.0), 0.01);
    EXPECT_NEAR(v.low95, 0.25, 0.01);
    EXPECT_NEAR(v.high95, 9.75, 0.01);
}

TEST(ReleaseInstant, AWrongBracketIsSaid) {
    for (const auto& [parted, frame] : {std::pair{1.6, "after release"}, std::pair{-0.7, "of release"}}) {
        const MeasureValue v = evaluate(instant(), byHand(parted, 1));
        ASSERT_FALSE(v.warnings.empty()) << parted;
        EXPECT_NE(said(v.warnings.front()).find(frame), std::string::npos) << v.warnings.front();
    }
    MeasureInput back = byHand(0.4, 1); // the ball falls behind the wrist, then leaps
    back.points["ball-1"].at.x -= 40;
    EXPECT_NE(said(evaluate(instant(), back).reason).find("after this bracket"), std::string::npos);
    MeasureInput never = byHand(0.4, 1);
    for (const char* name : {"ball", "ball-1", "ball-2"}) // it stays in the hand
        never.points[name].at.x = never.points["wrist" + std::string(name + 4)].at.x + 5;
    EXPECT_NE(said(evaluate(instant(), never).reason).find("does not leave the wrist"), std::string::npos);
    MeasureInput slow = byHand(0.4, 1);
    slow.captureFps = 0;
    EXPECT_EQ(evaluate(instant(), slow).state, MeasureState::NotVisible);
}

TEST(ReleaseInstant, HoldsTheGeneratorsTruthAtEveryRate) {
    std::mt19937_64 engine(3);
    std::normal_distribution<double> normal;
    std::uniform_real_distribution<double> unit(0, 1);
    FilmOrder order;
    const Delivery d(order.knobs);
    const double released = d.events().at(Moment::Release);
    for (const double fps : {60.0, 120.0, 240.0}) {
        int inside = 0;
        double width = 0;
        constexpr int kTimes = 200;
        for (int i = 0; i < kTimes; ++i) {
            order.hand = i % 2 ? Hand::Left : Hand::Right;
            const double part = unit(engine);
            MeasureInput in;
            in.captureFps = fps;
            in.view = View::Open;
            in.hand = order.hand;
            for (const Slot& s : instant().slots) {
                const auto joints = projectJoints(order, d.poseAt(released + (s.frames - part) / fps));
                const ImagePoint at = joints.at(s.landmark);
                in.points[s.name] = {{at.x + 1.5 * normal(engine), at.y + 1.5 * normal(engine)}, 1.5};
            }
            const MeasureValue v = evaluate(instant(), in);
            if (!v.value) continue; // said to lie outside its bracket: counts as a miss
            const double truth = 1000 * part / fps;
            inside += v.low95 <= truth && truth <= v.high95;
            width += (v.high95 - v.low95) * fps / 1000 / kTimes;
        }
        EXPECT_GE(inside, kTimes * 92 / 100) << fps;
        EXPECT_LT(width, 0.75) << fps; // of a frame: finer than the bracket
    }
}

} // namespace
} // namespace jg
