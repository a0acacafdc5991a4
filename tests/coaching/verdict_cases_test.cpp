// SPDX-License-Identifier: GPL-3.0-or-later
// Verdicts worked by hand from the numbers and words in use among coaches (common practice, no source).
#include "coaching/playbook.h"
#include "coaching/typed_target.h"
#include "kinematics/estimate.h"
#include "tests/support/core.h"

#include <random>

namespace jg {
namespace {

using V = Verdict;
constexpr auto kTell = std::optional<V>{}; ///< cannot tell

/// A target as it is typed, a value, half its 95 % interval, and what follows.
struct VerdictCase {
    const char* measure;
    const char* target;
    double value, half95;
    std::optional<V> expected;
    const char* says;
};

const VerdictCase kCases[] = {
    // Borders: on the limit is inside; the error is looked at only outside.
    {"back-knee", "at most 110", 110, 7, V::Keep, "Inside"},
    {"back-knee", "at most 110", 109.9, 0, V::Keep, "Inside"},
    {"back-knee", "at most 110", 110.5, 0, V::Nearly, "too large"},
    {"back-knee", "at most 110", 121, 0, V::Nearly, "11\u00b0 too large"},
    {"back-knee", "at most 110", 121.1, 0, V::Adjust, "too large"},
    {"back-knee", "at most 110", 132, 0, V::Adjust, "22\u00b0 too large"},
    {"back-knee", "at most 110", 132.1, 0, V::Change, "22\u00b0 too large"},
    {"back-knee", "at most 110", 117, 7, kTell, "cannot tell"},
    {"back-knee", "at most 110", 117.1, 7, V::Nearly, "too large"},
    {"leg-spread", "at least 106", 85, 5, V::Adjust, "21\u00b0 too small"},
    {"leg-spread", "at least 106", 106, 5, V::Keep, "Inside"},
    {"leg-spread", "at least 106", 101, 5, kTell, "cannot tell"},
    {"leg-spread", "at least 106", 100.9, 5, V::Nearly, "too small"},
    {"leg-spread", "at least 110", 107, 2, V::Nearly, "3\u00b0 too small"},
    {"trunk-forward", "at least 48", 32, 4, V::Change, "16\u00b0 too small: at least 48 is wanted"},
    {"trunk-forward", "at least 48", 45, 4, kTell, "4"},
    {"front-knee-release", "at least 135", 129, 7, kTell, "cannot tell"},
    {"front-knee-release", "at least 135", 129, 5, V::Nearly, "6\u00b0 too small"},
    {"front-knee-plant", "135 to 172", 137, 7, V::Keep, "Inside"},
    {"front-knee-plant", "135 to 172", 150, 7, V::Keep, "Inside"},
    {"front-knee-plant", "135 to 172", 172, 1, V::Keep, "Inside"},
    {"front-knee-plant", "135 to 172", 178, 2, V::Nearly, "6\u00b0 too large"},
    {"front-knee-plant", "135 to 172", 120, 2, V::Adjust, "15\u00b0 too small"},
    {"elbow-bend", "80 to 100", 70, 4, V::Adjust, "10\u00b0 too small"},
    {"elbow-bend", "80 to 100", 117, 0, V::Change, "17\u00b0 too large"},
    {"elbow-bend", "80-100", 90, 9, V::Keep, "Inside"},
    {"elbow-bend", "80 to 100", 104, 9, kTell, "cannot tell"},
    {"separation", "40 to 60", 22, 6, V::Change, "too small"},
    {"hips-open", "35 to 55", 45, 12, V::Keep, "Inside"},
    {"shoulders-closed", "at most 20", 33, 12, V::Change, "13\u00b0 too large"},
    {"foot-direction", "0 to 20", -6, 4, V::Change, "6\u00b0 too small"},
    {"foot-direction", "0 to 20", -3, 4, kTell, "cannot tell"},
    // Times, ways and ratios are said as a person says them.
    {"hand-early", "at most 67", 326, 17, V::Change, "259 ms too long"},
    {"hand-early", "at most 67", 83, 17, kTell, "ms too long"},
    {"hand-early", "at most 67", 66, 17, V::Keep, "Inside"},
    {"trunk-start", "at least 0", -50, 16, V::Protect, "50 ms too short"},
    {"layback-dwell", "at most 50", 75, 17, V::Protect, "25 ms too long"},
    {"layback-dwell", "at most 50", 60, 17, kTell, "cannot tell"},
    {"release-ahead", "8 to 12", 9, 2, V::Keep, "Inside"},
    {"release-ahead", "8 to 12", 4, 2, V::Change, "4 in too little"},
    {"release-ahead", "8 to 12", 15, 2, V::Change, "3 in too much"},
    {"release-ahead", "8 to 12", 13, 2, kTell, "1 in too much"},
    {"early-travel", "at least 6", 2, 1, V::Change, "4 in too little"},
    {"early-travel", "at most 2", 2, 1, V::Keep, "Inside"},
    {"head-drop", "at most 20", 24, 1, V::Adjust, "4 % too much"},
    {"stride", "at least 80", 76, 2, V::Nearly, "4 % too little"},
    {"stance-width", "0.8 to 1.2", 0.5, 0.1, V::Change, "0.3"},
    {"stance-width", "0,8 to 1,2", 1.25, 0.1, kTell, "cannot tell"},
    {"back-foot-off", "at most 0", 40, 17, V::Protect, "40 ms too long"},
    // The arm goes before everything else, and only a real miss counts.
    {"elbow-height", "at most 0", 9, 4, V::Protect, "9\u00b0 too large"},
    {"elbow-height", "at most 0", 3, 4, kTell, "cannot tell"},
    {"elbow-height", "at most 0", -12, 4, V::Keep, "Inside"},
    {"wrist-inside", "0 to 8", -2, 1, V::Protect, "2 % too little"},
    {"straight-early", "at most 150", 170, 6, V::Protect, "too large"},
};

TEST(VerdictCases, WorkedByHand) {
    for (const VerdictCase& c : kCases) {
        const MeasureDefinition* m = test::playbook().measure(c.measure);
        ASSERT_TRUE(m) << c.measure;
        const auto target = typedTarget(c.target, *m);
        ASSERT_TRUE(target) << c.target << ": " << said(target.error().text);
        const Judgement j =
            judge(*target, test::plusMinus(c.value, c.half95 / kSdsOf95 * (1 + 1e-9)), m->protectsArm);
        EXPECT_EQ(j.verdict, c.expected)
            << c.measure << " " << c.value << " by " << c.target << ": " << said(j.text);
        EXPECT_NE(said(j.text).find(c.says), std::string::npos) << c.measure << ": " << said(j.text);
        EXPECT_EQ(j.state, c.expected ? JudgeState::Graded : JudgeState::CannotTell) << c.measure;
    }
}

struct SeenCase {
    const char *measure, *target, *seen;
    V expected;
};

const SeenCase kSeen[] = {
    {"landing-part", "whole foot", "whole foot", V::Keep},
    {"landing-part", "whole foot", "heel", V::Change},
    {"landing-part", "whole foot or toe", "toe", V::Keep},
    {"palm-facing", "the chest's side", "second base", V::Protect},
    {"palm-facing", "the chest's side", "the chest's side", V::Keep},
    {"elbow-behind", "in line or in front", "in front", V::Keep},
    {"elbow-behind", "in line or in front", "behind", V::Protect},
    {"back-foot-turn", "toward second base", "still down", V::Change},
};

TEST(VerdictCases, WhatIsSeenIsJudgedByItsAnswers) {
    for (const SeenCase& c : kSeen) {
        const MeasureDefinition* m = test::playbook().measure(c.measure);
        const auto target = typedTarget(c.target, *m);
        ASSERT_TRUE(target) << c.target;
        EXPECT_EQ(judgeSeen(*target, c.seen, m->protectsArm).verdict, c.expected)
            << c.measure << " " << c.seen;
    }
    Target near = *typedTarget("whole foot", *test::playbook().measure("landing-part"));
    near.nearly = {"toe"};
    EXPECT_EQ(judgeSeen(near, "toe", false).verdict, V::Nearly);
    near.type = TargetType::Record;
    EXPECT_EQ(judgeSeen(near, "heel", false).state, JudgeState::Recorded);
}

TEST(VerdictCases, SixtyAndMoreAreWorked) {
    EXPECT_GE(std::size(kCases) + std::size(kSeen), 60U);
}

// The number that is good, and the one that is enough.
TEST(VerdictCases, EnoughIsKeptAndGoodIsNamed) {
    const Target* t = test::playbook().approach("load-and-drive")->targetOf("back-knee");
    const Judgement enough = judge(*t, test::plusMinus(110, 2), false),
                    good = judge(*t, test::plusMinus(99, 2), false);
    EXPECT_EQ(enough.verdict, V::Keep);
    EXPECT_NE(said(enough.text).find("100 is good"), std::string::npos);
    EXPECT_EQ(said(good.text).find("is good"), std::string::npos);
}

TEST(VerdictCases, ACentimetreIsJudgedAsItsInches) {
    const auto inches = typedTarget("8 to 12", *test::playbook().measure("release-ahead"));
    const auto metric = targetIn(*inches, "cm");
    ASSERT_TRUE(metric);
    EXPECT_EQ(judge(*metric, test::plusMinus(25, 0.5), false).verdict, V::Keep);
    EXPECT_EQ(judge(*metric, test::plusMinus(10.16, 0.5), false).verdict,
              judge(*inches, test::plusMinus(4, 0.2), false).verdict);
    EXPECT_FALSE(targetIn(*inches, "%"));
}

TEST(VerdictCases, WhatCantBeATargetIsRefusedInWords) {
    const MeasureDefinition& number = *test::playbook().measure("back-knee");
    for (const char* bad :
         {"", "110", "about 110", "at least", "at least x", "110 to 80", "100 to 100", "to 5"})
        EXPECT_FALSE(typedTarget(bad, number)) << bad;
    const auto none = typedTarget("elbow", *test::playbook().measure("landing-part"));
    ASSERT_FALSE(none);
    EXPECT_NE(said(none.error().text).find("whole foot"), std::string::npos);
    EXPECT_EQ(typedTarget("at most 12,5", number)->x, 12.5);
    EXPECT_EQ(typedTarget("at least -10", number)->x, -10);
    EXPECT_EQ(typedTarget(">= 48", number)->type, TargetType::AtLeast);
    EXPECT_EQ(typedTarget("<=48", number)->type, TargetType::AtMost);
    EXPECT_TRUE(typedTarget("at least 48 degrees", number));
    EXPECT_FALSE(typedTarget("at least 48 cm", number)); // another unit is never taken for degrees
    EXPECT_FALSE(typedTarget("80 to 110 ms", number));
}

// A length is in the unit the coach reads lengths in, unless another stands behind it.
TEST(VerdictCases, ALengthIsTypedInTheCoachsUnit) {
    const MeasureDefinition& m = *test::playbook().measure("release-ahead");
    EXPECT_EQ(typedTarget("at least 8", m)->unit, "in");
    EXPECT_EQ(typedTarget("at least 20", m, LengthUnit::Centimetres)->unit, "cm");
    EXPECT_EQ(typedTarget("20 to 30 cm", m)->unit, "cm");
    EXPECT_FALSE(typedTarget("at least 20 %", m));
}

// A difference inside the error never turns a keep into a fault.
TEST(VerdictProperties, ADifferenceInsideTheErrorChangesNoKeepToAFault) {
    std::mt19937 engine(1);
    const auto uniform = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    };
    int kept = 0;
    for (int i = 0; i < 20000; ++i) {
        Target t;
        t.type = std::array{TargetType::AtLeast, TargetType::AtMost, TargetType::Band}.at(engine() % 3);
        t.x = uniform(-50, 150);
        t.y = t.x + uniform(1, 50);
        t.soft = uniform(0, 10);
        const double sd = uniform(0, 10), value = uniform(t.x - 30, t.y + 30);
        const bool arm = engine() % 2 == 0;
        if (judge(t, test::plusMinus(value, sd), arm).verdict != V::Keep) continue;
        ++kept;
        const Judgement other = judge(t, test::plusMinus(value + uniform(-1.9599, 1.9599) * sd, sd), arm);
        EXPECT_TRUE(!other.verdict || other.verdict == V::Keep) << said(other.text);
    }
    EXPECT_GT(kept, 5000);
}

} // namespace
} // namespace jg
