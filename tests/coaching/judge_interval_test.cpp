// SPDX-License-Identifier: GPL-3.0-or-later
// Verdicts are judged by the interval that is shown: two-sided, bounds of frames, one-sided, whatever made
// it.
#include "coaching/target.h"
#include "tests/support/core.h"

#include <random>

namespace jg {
namespace {

bool reaches(const Target& t, const Shown& n) {
    switch (t.type) {
    case TargetType::AtLeast:
        return n.high95 >= t.x;
    case TargetType::AtMost:
        return n.low95 <= t.x;
    default:
        return n.high95 >= t.x && n.low95 <= t.y;
    }
}

bool inside(const Target& t, double v) {
    return reaches(t, {v, v, v});
}

TEST(JudgedByTheInterval, OfEveryKind) {
    std::mt19937 engine(17);
    const auto uniform = [&](double low, double high) {
        return std::uniform_real_distribution<>(low, high)(engine);
    };
    int graded = 0, open = 0;
    for (int i = 0; i < 20000; ++i) {
        Target t;
        t.type = std::array{TargetType::AtLeast, TargetType::AtMost, TargetType::Band}[engine() % 3];
        t.x = uniform(-50, 50);
        t.y = t.x + uniform(0, 30);
        t.soft = uniform(1, 10);
        const double value = uniform(-80, 80);
        Shown n{value, value, value};
        switch (engine() % 4) {
        case 0: // as a formula gives it
            n.low95 -= 9, n.high95 += 9;
            break;
        case 1: // wider on one side
            n.low95 -= uniform(0, 20), n.high95 += uniform(0, 20);
            break;
        case 2: // to one side only, as at a fold
            (engine() % 2 ? n.low95 : n.high95) += engine() % 2 ? -uniform(0, 20) : uniform(0, 20);
            if (n.low95 > n.value) std::swap(n.low95, n.high95);
            n.low95 = std::min(n.low95, value), n.high95 = std::max(n.high95, value);
            break;
        default: // exact
            break;
        }
        const bool arm = engine() % 5 == 0;
        const Judgement j = judge(t, n, arm);
        if (inside(t, value)) {
            EXPECT_EQ(j.verdict, Verdict::Keep);
        } else if (reaches(t, n)) {
            EXPECT_EQ(j.state, JudgeState::CannotTell) << value << " " << n.low95 << ".." << n.high95;
            EXPECT_FALSE(j.verdict);
            ++open;
        } else {
            EXPECT_EQ(j.state, JudgeState::Graded);
            EXPECT_NE(j.verdict, Verdict::Keep);
            EXPECT_EQ(arm, j.verdict == Verdict::Protect);
            ++graded;
        }
    }
    EXPECT_GT(graded, 3000);
    EXPECT_GT(open, 500);
}

// Three frames at 60 a second: 50 ms, 33 to 67.
TEST(JudgedByTheInterval, AtMost35IsNotMissedBy33To67) {
    Target t;
    t.type = TargetType::AtMost;
    t.x = 35;
    t.unit = "ms";
    EXPECT_EQ(judge(t, {50, 33, 67}, false).state, JudgeState::CannotTell);
    EXPECT_EQ(judge(t, {50, 36, 67}, false).state, JudgeState::Graded);
}

} // namespace
} // namespace jg
