// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/target.h"

#include "tests/support/core.h"

namespace jg {
namespace {

Target target(TargetType type, double x, double y = 0, double soft = 6) {
    Target t;
    t.type = type;
    t.x = x;
    t.y = y;
    t.soft = soft;
    t.unit = "deg";
    return t;
}

TEST(Judge, InsideTheTargetIsKeepEvenNearItsEdge) {
    const Judgement j = judge(target(TargetType::AtMost, 110), test::plusMinus(109, 3), false);
    EXPECT_EQ(j.state, JudgeState::Graded);
    EXPECT_EQ(j.verdict, Verdict::Keep);
    EXPECT_EQ(j.gap, 0);
}

TEST(TargetIn, ALengthIsTurnedAndAShareIsNotCompared) {
    Target t = target(TargetType::Band, 10, 20, 2);
    t.unit = "in";
    t.good = 15;
    const auto metric = targetIn(t, "cm");
    ASSERT_TRUE(metric);
    EXPECT_NEAR(metric->x, 25.4, 1e-9);
    EXPECT_NEAR(metric->y, 50.8, 1e-9);
    EXPECT_NEAR(metric->soft, 5.08, 1e-9);
    EXPECT_NEAR(*metric->good, 38.1, 1e-9);
    EXPECT_EQ(metric->unit, "cm");
    EXPECT_EQ(targetIn(t, "in"), t);
    EXPECT_FALSE(targetIn(t, "%"));
    t.type = TargetType::Record; // asks nothing
    EXPECT_TRUE(targetIn(t, "%"));
}

// 129 against a target of 135 with a hand that wobbles by 3.5 degrees (95 %: 6.9): inside the error.
TEST(Judge, AGapInsideTheErrorIsCannotTellNotAFault) {
    const Judgement j = judge(target(TargetType::AtLeast, 135), test::plusMinus(129, 3.5), false);
    EXPECT_EQ(j.state, JudgeState::CannotTell);
    EXPECT_FALSE(j.verdict);
    EXPECT_NEAR(j.gap, -6, 1e-12);
    EXPECT_NEAR(j.gapInSds, 6 / 3.5, 1e-12);
    EXPECT_NE(said(j.text).find("inside the error"), std::string::npos);
}

TEST(Judge, StepsFollowTheSoftMargin) {
    const Target t = target(TargetType::AtLeast, 106);
    EXPECT_EQ(judge(t, test::plusMinus(101, 1), false).verdict, Verdict::Nearly);
    EXPECT_EQ(judge(t, test::plusMinus(96, 1), false).verdict, Verdict::Adjust);
    EXPECT_EQ(judge(t, test::plusMinus(88, 1), false).verdict, Verdict::Change);
}

TEST(Judge, AnArmMeasureBeyondTheErrorIsProtect) {
    EXPECT_EQ(judge(target(TargetType::AtMost, 0), test::plusMinus(9, 2), true).verdict, Verdict::Protect);
    EXPECT_EQ(judge(target(TargetType::AtMost, 0), test::plusMinus(-3, 2), true).verdict, Verdict::Keep);
    EXPECT_EQ(judge(target(TargetType::AtMost, 0), test::plusMinus(3, 2), true).state,
              JudgeState::CannotTell);
}

TEST(Judge, BandsMissOnBothSides) {
    const Target t = target(TargetType::Band, 135, 140, 5);
    EXPECT_EQ(judge(t, test::plusMinus(137, 1), false).verdict, Verdict::Keep);
    EXPECT_NEAR(judge(t, test::plusMinus(150, 1), false).gap, 10, 1e-12);
    EXPECT_NEAR(judge(t, test::plusMinus(130, 1), false).gap, -5, 1e-12);
}

TEST(Judge, RecordedMeasuresHaveNoVerdict) {
    const Judgement j = judge(target(TargetType::Record, 0), test::plusMinus(150, 5), false);
    EXPECT_EQ(j.state, JudgeState::Recorded);
    EXPECT_FALSE(j.verdict);
}

TEST(Target, SpeaksPlainly) {
    EXPECT_EQ(wordsOf(target(TargetType::AtMost, 110)), "at most 110");
    EXPECT_EQ(wordsOf(target(TargetType::AtMost, 0)), "0 or below");
    EXPECT_EQ(wordsOf(target(TargetType::Band, 135, 140)), "135 to 140");
    Target ms = target(TargetType::AtMost, 33);
    ms.unit = "ms";
    EXPECT_EQ(wordsOf(ms), "at most 33 ms");
    EXPECT_EQ(wordsOf(target(TargetType::Any, 0)), "");
}

TEST(Target, IdsGoBothWays) {
    for (const TargetType t :
         {TargetType::AtLeast, TargetType::AtMost, TargetType::Band, TargetType::Any, TargetType::Record})
        EXPECT_EQ(targetTypeFromId(idOf(t)), t);
    for (const Verdict v :
         {Verdict::Keep, Verdict::Nearly, Verdict::Adjust, Verdict::Change, Verdict::Protect})
        EXPECT_EQ(verdictFromId(idOf(v)), v);
    EXPECT_FALSE(verdictFromId("bad"));
}

// Numbers in common use for this way of judging (common practice, no source).
TEST(Approach, LoadAndDriveHoldsItsTargets) {
    const Approach* a = test::playbook().approach("load-and-drive");
    ASSERT_TRUE(a);
    const Target* knee = a->targetOf("back-knee");
    ASSERT_TRUE(knee);
    EXPECT_EQ(knee->type, TargetType::AtMost);
    EXPECT_EQ(knee->x, 110);
    EXPECT_EQ(*knee->good, 100);
    EXPECT_EQ(a->targetOf("leg-spread")->x, 106);
    EXPECT_EQ(a->targetOf("front-knee-release")->x, 135);
    EXPECT_EQ(a->targetOf("front-knee-plant")->position, Moment::Plant);
    EXPECT_EQ(a->targetOf("trunk-forward")->x, 48);
    EXPECT_EQ(a->targetOf("hand-early"),
              nullptr); // this school complains of a late hand, not of an early one
    const Target* plant = a->targetOf("front-knee-plant");
    EXPECT_EQ(judge(*plant, test::plusMinus(137, 2), false).verdict,
              Verdict::Keep); // no fault until it is locked
    EXPECT_EQ(judge(*plant, test::plusMinus(150, 2), false).verdict, Verdict::Keep);
    EXPECT_EQ(judge(*a->targetOf("leg-spread"), test::plusMinus(85, 2), false).verdict, Verdict::Change);
    EXPECT_GE(a->targets.size(), 12U);
    EXPECT_EQ(a->graded.size(), 12U);
    EXPECT_EQ(a->targetOf("nothing"), nullptr);
}

} // namespace
} // namespace jg
