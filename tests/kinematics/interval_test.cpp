// SPDX-License-Identifier: GPL-3.0-or-later
// What goes into an interval beside the click: a turn's fold, the side a line stands on, the moment that was
// picked, where a person always clicks, and a depth that counts as far as the camera may be turned. By hand.
#include "kinematics/measure.h"
#include "kinematics/turn.h"
#include "tests/support/core.h"

#include <cmath>

namespace jg {
namespace {

constexpr double kRad = M_PI / 180;

TEST(TurnsFold, AWidthAboveTheTrueOneIsNoExactZero) {
    // Ten parts in a hundred too wide: so much at least the widths are off.
    const Turn turn = turnFromRatio({1.1, 0.01}, TurnSeen::FromSide);
    EXPECT_EQ(turn.deg, 0);
    EXPECT_EQ(turn.low95, 0);
    EXPECT_NEAR(turn.high95, std::acos(1 - std::hypot(0.1, 0.01 * kSdsOf95)) / kRad, 1e-9);
    const Turn front = turnFromRatio({1.1, 0.01}, TurnSeen::FromFront);
    EXPECT_EQ(front.high95, 90);
    EXPECT_LT(front.low95, 66);
}

/// A measure of two points at plant, and what is clicked of them.
struct Two {
    MeasureDefinition m;
    MeasureInput in;
    explicit Two(MeasureKind kind) {
        m.id = "two";
        m.kind = kind;
        m.unit = "%";
        m.views = {View::Open, View::Front};
        m.slots = {{"from", Landmark::Rubber, Moment::Plant}, {"to", Landmark::BackWrist, Moment::Plant}};
        m.moments = {Moment::Plant};
        in.heightPx = {400, 0};
        in.captureFps = 1e9; // within a frame nothing is left open
        in.points = {{"from", {{100, 300}, 0}}, {"to", {{300, 300}, 0}}};
    }
    MeasureValue value() const { return evaluate(m, in); }
};

TEST(PickedMoment, CountsByHowFastTheJointMoves) {
    Two two(MeasureKind::Ahead);
    two.in.motions["to"] = {{3, 0}, {0, 0}}; // heights a second toward the target
    EXPECT_NEAR(*two.value().value, 50, 1e-9);
    EXPECT_NEAR(two.value().sd, 3 * 0.008 * 100, 1e-6); // 8 ms of 3 heights a second, in % of height
    two.in.motions["from"] = {{3, 0}, {0, 0}};          // both go on alike: nothing changes between them
    EXPECT_NEAR(two.value().sd, 0, 1e-6);
    two.in.motions["from"] = {{0, 2}, {0, 0}}; // how fast, nobody knows
    EXPECT_NEAR(two.value().sd, std::hypot(3, 2) * 0.8, 1e-3);
}

TEST(PickedMoment, ReleaseIsHalfAFrameAfterTheLastOneWithTheBallInTheHand) {
    Two two(MeasureKind::Ahead);
    for (Slot& s : two.m.slots) s.at = Moment::Release;
    two.m.moments = {Moment::Release};
    two.in.captureFps = 60;
    two.in.motions["to"] = {{3, 0}, {0, 0}};
    EXPECT_NEAR(*two.value().value, 50 + 300 * (1 / 60.0) / 2, 1e-9);
    EXPECT_NEAR(two.value().sd, 300 * std::hypot(0.002, 1 / 60.0 / std::sqrt(12.0)), 1e-6);
    two.in.motions["to"] = {{0, 3}, {0, 0}}; // which way, nobody knows, and all of the frame long
    EXPECT_NEAR(*two.value().value, 50, 1e-9);
    EXPECT_NEAR(two.value().sd, 300 * std::hypot(0.002, 1 / 60.0 / std::sqrt(3.0)), 1e-6);
}

TEST(Lean, StaysWholeOnOneMomentAndHalfFromOneToAnother) {
    Two two(MeasureKind::Ahead);
    two.m.slots[0] = {"from", Landmark::BackWrist, Moment::Load};
    two.m.moments = {Moment::Load, Moment::Plant};
    for (auto& [name, p] : two.in.points) p.leanPx = 4; // one part in a hundred
    EXPECT_NEAR(two.value().sd, std::sqrt(2 - 2 * 0.5), 1e-6);
    two.m.slots[0] = {"from", Landmark::BackWrist, Moment::Plant, -1};
    EXPECT_NEAR(two.value().sd, 0, 1e-6);
    two.m.slots[0] = {"from", Landmark::Rubber, Moment::Plant};
    EXPECT_NEAR(two.value().sd, std::sqrt(2.0), 1e-6);
}

TEST(DepthUnderTurn, CountsAsFarAsTheCameraMayBeTurned) {
    Two two(MeasureKind::Ahead);
    two.in.camera = CameraPlace{{200, 300}, {1e6, 0}, {0, 0}, {200, 300}};
    two.in.depths["to"] = {0, 0.1};
    two.in.yawDeg = {0, 6};
    // A tenth of the height, give or take, nearer: at six degrees it moves by its sine.
    EXPECT_NEAR(two.value().sd, 10 * std::tan(6 * kRad), 0.02);
    two.in.yawDeg = {0, 0};
    EXPECT_NEAR(two.value().sd, 0, 1e-3);
}

MeasureInput fromTheFront(double leadX) {
    MeasureInput in;
    in.view = View::Front;
    in.captureFps = 1e9;
    in.heightPx = {400, 0};
    in.points = {
        {"a", {{leadX, 300}, 1}}, {"b", {{300, 300}, 1}}, {"c", {{400, 300}, 1}}, {"d", {{300, 300}, 1}}};
    return in;
}

TEST(FrontTurn, PastClosedCountsBelowNought) {
    MeasureDefinition m;
    m.id = "turn";
    m.kind = MeasureKind::TurnFront;
    m.unit = "deg";
    m.views = {View::Front};
    m.moments = {Moment::Plant, Moment::Release};
    m.slots = {{"a", Landmark::LeadShoulder, Moment::Plant},
               {"b", Landmark::BackShoulder, Moment::Plant},
               {"c", Landmark::LeadShoulder, Moment::Release},
               {"d", Landmark::BackShoulder, Moment::Release}};
    const MeasureValue open = evaluate(m, fromTheFront(350)), past = evaluate(m, fromTheFront(250)),
                       near = evaluate(m, fromTheFront(301));
    EXPECT_NEAR(*open.value, 30, 0.1);
    EXPECT_NEAR(*past.value, -30, 0.1);
    EXPECT_LT(past.high95, 0);
    EXPECT_LT(near.low95, 0); // which side can't be told
    EXPECT_GT(near.high95, 0);
    EXPECT_NEAR(near.low95, -near.high95, 1e-9);
}

} // namespace
} // namespace jg
