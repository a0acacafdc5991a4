// SPDX-License-Identifier: GPL-3.0-or-later
// Every measure of points against values worked by hand: corners of right, 45 and 30-60 degree triangles, and
// lengths on a standing height of 500 pixels. Each as it is, in the mirror with the other hand, rolled, and
// larger.
#include "kinematics/measure.h"

#include "base/number.h"
#include "kinematics/geometry.h"
#include "tests/support/core.h"

#include <cmath>
#include <cstdlib>
#include <set>

namespace jg {
namespace {

struct HandCase {
    const char* id;
    View view;
    const char* points; ///< of a right-hander, y down
    double expected;
};

const HandCase kCases[] = {
    {"stance-width", View::Open,
     "back-ankle=100,500;lead-ankle=220,500;back-shoulder=110,200;lead-shoulder=210,200", 1.2},
    {"stance-width", View::Closed,
     "back-ankle=100,500;lead-ankle=180,500;back-shoulder=90,200;lead-shoulder=190,200", 0.8},
    {"lift-height", View::Open, "lead-hip=300,400;lead-knee=400,400", 0},
    {"lift-height", View::Open, "lead-hip=300,400;lead-knee=400,300", 45},
    {"lift-height", View::Closed, "lead-hip=300,400;lead-knee=213.397,450", -30},
    {"lift-closure", View::Open, "back-ankle=200,500;lead-knee=150,300", -10},
    {"lift-closure", View::Open, "back-ankle=200,500;lead-knee=225,310", 5},
    {"early-travel", View::Open, "pelvis=200,300;pelvis-lift-top=240,290", 8},
    {"early-travel", View::Open, "pelvis=200,300;pelvis-lift-top=190,290", -2},
    {"hip-lead", View::Open, "lead-knee=300,300;lead-hip=330,350", 6},
    // A right-hander's back toe points to third base, which lies to the left from the plate.
    {"back-knee-over-toe", View::Front, "back-toe=200,500;back-knee=180,400", 4},
    {"back-knee-over-toe", View::Rear, "back-toe=200,500;back-knee=180,400", -4},
    {"forward-down", View::Open, "pelvis=200,300;pelvis-plant=320,360", 2},
    {"forward-down", View::Open, "pelvis=200,300;pelvis-plant=260,420", 0.5},
    {"knee-in", View::Front, "lead-ankle=400,500;lead-knee=340,420", 60},
    {"knee-in", View::Front, "lead-ankle=400,500;lead-knee=460,420", -60},
    {"foot-direction", View::Front,
     "lead-heel=400,500;lead-toe=350,500;lead-heel-set=300,500;lead-toe-set=200,500", 30},
    {"foot-direction", View::Front, // the toe on the other side of the heel: open
     "lead-heel=400,500;lead-toe=450,500;lead-heel-set=300,500;lead-toe-set=200,500", -30},
    {"foot-direction", View::Front, // pointing at the camera, as long as it may look
     "lead-heel=400,500;lead-toe=400,540;lead-heel-set=300,500;lead-toe-set=200,500", 0},
    {"foot-direction", View::Front,
     "lead-heel=400,500;lead-toe=329.2893,500;lead-heel-set=300,500;lead-toe-set=200,500", 45},
    {"foot-line", View::Front, "back-ankle=300,500;lead-ankle=280,520", 4},
    {"foot-line", View::Rear, "back-ankle=300,500;lead-ankle=280,520", -4},
    {"foot-flat", View::Open,
     "lead-heel=300,500;lead-toe=340,500;lead-heel-release=300,500;lead-toe-release=340,460", 45},
    {"foot-flat", View::Open,
     "lead-heel=300,500;lead-toe=340,460;lead-heel-release=310,500;lead-toe-release=350,500", -45},
    {"back-foot-distance", View::Open, "rubber=200,500;back-toe=245,495", 9},
    {"seat-behind-heel", View::Front, "back-heel=200,500;pelvis=225,350", 5},
    {"seat-behind-heel", View::Rear, "back-heel=200,500;pelvis=225,350", -5},
    {"back-leg-lean", View::Open, "back-ankle=200,500;back-hip=300,400", 45},
    {"back-leg-lean", View::Open, "back-ankle=200,500;back-hip=257.735,400", 30},
    {"back-leg-lean", View::Closed, "back-ankle=200,500;back-hip=300,400", -45},
    {"back-leg-lean-load", View::Open, "back-ankle=200,500;back-hip=200,400", 0},
    {"weight-ahead", View::Open, "back-ankle=200,500;pelvis=210,300", 2},
    {"pelvis-slope-lift", View::Open, "back-hip=300,400;lead-hip=400,342.265", 30},
    {"pelvis-slope-lift", View::Front, "back-hip=300,400;lead-hip=400,400", 0},
    {"pelvis-slope-load", View::Open, "back-hip=300,400;lead-hip=400,500", -45},
    {"pelvis-slope-turn", View::Front, "back-hip=300,400;lead-hip=386.603,350", 30},
    {"knee-path", View::Open, "lead-knee=300,400;lead-knee-lift-top=300,300", 90},
    {"knee-path", View::Open, "lead-knee=300,400;lead-knee-lift-top=200,300", 135},
    {"knee-path", View::Open, "lead-knee=300,400;lead-knee-lift-top=400,300", 45},
    {"foot-from-above", View::Open, "lead-ankle=300,400;lead-ankle-foot-touch=400,500", -45},
    {"foot-from-above", View::Closed, "lead-ankle=300,400;lead-ankle-foot-touch=242.265,500", -60},
    {"front-knee-leak", View::Open, "lead-knee=400,400;lead-knee-release=410,405", 2},
    {"back-knee-beside", View::Open, "lead-knee=400,400;back-knee=350,420", -10},
    {"v-shape", View::Open, "back-ankle=200,500;pelvis=300,400;lead-ankle=400,500", 90},
    {"v-shape", View::Open, "back-ankle=126.795,500;pelvis=300,400;lead-ankle=473.205,500", 120},
    {"stretch-angle", View::Open, "ball=300,400;lead-ankle=400,500;back-ankle=300,500", 45},
    {"body-path", View::Front, "pelvis=300,300;pelvis-plant=310,300", 2},
    {"body-path", View::Rear, "pelvis=300,300;pelvis-plant=310,300", -2},
    {"head-back", View::Open, "head=300,100;head-lift-top=285,100", 3},
    {"head-stack", View::Open, "back-ankle=200,500;head=260,100", 12},
    {"chin-behind", View::Open, "pelvis=300,300;chin=280,120", -4},
    {"hunch", View::Open, "pelvis=300,400;mid-back=300,300;neck=300,200", 180},
    {"hunch", View::Open, "pelvis=300,400;mid-back=300,300;neck=400,200", 135},
    {"hunch-set", View::Closed, "pelvis=200,400;mid-back=300,300;neck=400,300", 225},
    {"hips-open", View::Open, "back-hip=300,400;lead-hip=350,400;back-hip-set=300,400;lead-hip-set=400,400",
     60},
    {"hips-open", View::Open,
     "back-hip=300,400;lead-hip=370.7107,400;back-hip-set=300,400;lead-hip-set=400,400", 45},
    {"shoulders-closed", View::Open,
     "back-shoulder=300,200;lead-shoulder=386.6025,200;back-shoulder-set=300,200;lead-shoulder-set=400,200",
     30},
    {"hips-open-front", View::Front,
     "back-hip=300,400;lead-hip=350,400;back-hip-release=300,400;lead-hip-release=400,400", 30},
    {"shoulders-open-front", View::Rear,
     "back-shoulder=300,200;lead-shoulder=229.2893,200;back-shoulder-release=300,200;lead-shoulder-release="
     "200,200",
     45},
    {"separation", View::Open,
     "back-hip=300,400;lead-hip=350,400;back-hip-set=300,400;lead-hip-set=400,400;back-shoulder=300,200;lead-"
     "shoulder=386.6025,200;back-shoulder-set=300,200;lead-shoulder-set=400,200",
     30},
    {"shoulder-level", View::Open, "back-shoulder=300,200;lead-shoulder=400,200", 0},
    {"shoulder-level", View::Closed, "back-shoulder=400,200;lead-shoulder=300,100", 45},
    {"trunk-lean", View::Open, "pelvis=300,400;neck=400,300", 45},
    {"trunk-lean", View::Closed, "pelvis=300,400;neck=242.265,300", 30},
    {"back-knee-release", View::Open, "hip=300,300;knee=300,400;ankle=200,400", 90},
    {"back-hip-release", View::Open, "neck=400,300;back-hip=300,400;back-knee=200,500", 180},
    {"back-hip-release", View::Open, "neck=400,300;back-hip=300,400;back-knee=300,500", 135},
    {"back-hip-release", View::Open, "neck=300,300;back-hip=300,400;back-knee=200,500", 225},
    {"travel-down", View::Open, "pelvis-load=300,300;pelvis-lift-top=225,280;pelvis-set=200,280", 75},
    {"pelvis-between", View::Open, "back-ankle=200,500;pelvis=320,300;lead-ankle=500,520", 40},
    {"pelvis-between", View::Closed, "back-ankle=500,500;pelvis=380,300;lead-ankle=200,520", 40},
    {"head-over-knee", View::Open, "lead-knee=400,400;head=425,150", 5},
    {"front-hip-drop", View::Open,
     "lead-hip=300,300;lead-hip-plant=420,360;back-hip=260,310;back-hip-plant=330,340", 6},
    {"forearm-lie", View::Open, "back-elbow=300,300;back-wrist=200,300", 0},
    {"forearm-lie", View::Open, "back-elbow=300,300;back-wrist=200,400", -45},
    {"ball-axis", View::Open, "pelvis=300,400;neck=300,200;ball=240,220", 12},
    {"elbow-over-foot", View::Open, "lead-ankle=400,500;back-elbow=430,200", 6},
    {"trunk-side", View::Front, "pelvis=300,400;neck=400,300", 45},
    {"trunk-side", View::Front, "pelvis=300,400;neck=242.265,300", -30},
    {"head-line", View::Front, "rubber=300,550;head=330,150;back-shoulder=240,220;lead-shoulder=360,220", 25},
    {"chest-over-knee", View::Open, "lead-knee=400,400;neck=425,200", 5},
    {"back-shoulder-ahead", View::Open, "lead-shoulder=350,220;back-shoulder=375,210", 5},
    {"flat-back", View::Open, "pelvis=300,300;neck=400,300", 0},
    {"flat-back", View::Open, "pelvis=300,300;neck=400,242.265", 30},
    {"break-centre", View::Open, "pelvis=300,300;back-wrist=290,250", 2},
    {"hand-up", View::Open, "back-elbow=200,200;back-wrist=200,100", 90},
    {"hand-up", View::Open, "back-elbow=200,200;back-wrist=100,100", 45},
    {"hand-up", View::Open, "back-elbow=200,200;back-wrist=300,100", 135},
    {"hand-up", View::Open, "back-elbow=200,200;back-wrist=100,257.735", -30},
    {"upper-arm-line", View::Front, "lead-shoulder=400,200;back-shoulder=300,200;back-elbow=200,200", 180},
    {"upper-arm-line", View::Front, "lead-shoulder=400,200;back-shoulder=300,200;back-elbow=200,100", 135},
    {"layback-angle", View::Open, "back-elbow=300,200;back-wrist=200,200", -90},
    {"layback-angle", View::Open, "back-elbow=300,200;back-wrist=300,100", 0},
    {"layback-angle", View::Open, "back-elbow=300,200;back-wrist=200,300", -135},
    {"elbow-slope", View::Open, "back-elbow-before=300,200;back-elbow=400,200", 0},
    {"elbow-slope", View::Closed, "back-elbow-before=300,200;back-elbow=200,300", -45},
    {"forearm-vertical", View::Front, "back-elbow=200,200;back-wrist=200,100", 0},
    {"forearm-vertical", View::Front, "back-elbow=200,200;back-wrist=257.735,100", 30},
    {"wrist-inside", View::Front, "back-elbow=200,200;back-wrist=225,120", 5},
    {"glove-reach", View::Open, "lead-ankle=400,500;glove=375,200", -5},
    {"glove-reach-knee", View::Open, "lead-knee=380,400;glove=400,220", 4},
    {"glove-reach-release", View::Open, "lead-knee=420,400;glove=400,220", -4},
    {"release-ahead", View::Open, "lead-ankle=400,500;ball=450,150", 10},
    {"release-ahead", View::Closed, "lead-ankle=400,500;ball=350,150", 10},
    {"release-height", View::Open, "ground=400,600;ball=450,150", 90},
    {"flight-angle", View::Open, "ball=450,150;ball-ball-away=650,150", 0},
    {"flight-angle", View::Open, "ball=450,150;ball-ball-away=550,207.735", -30},
    {"ball-show", View::Open, "ball=300,300;glove=310,290", 2},
    {"arm-match", View::Open,
     "lead-shoulder=400,200;lead-elbow=500,200;lead-wrist=500,100;back-shoulder=300,200;back-elbow=200,200;"
     "back-wrist=100,200",
     90},
    {"thigh-path", View::Open, "back-hip=300,300;back-knee=300,400;back-wrist=275,350", 5},
    {"elbow-rise", View::Open, "lead-shoulder=400,200;back-shoulder=300,200;back-elbow=200,100", 45},
    {"elbow-rise", View::Rear, "lead-shoulder=300,200;back-shoulder=400,200;back-elbow=500,300", -45},
    {"straight-early", View::Open, "back-shoulder=300,200;back-elbow=400,200;back-wrist=400,100", 90},
    {"lever", View::Open, "back-shoulder=300,200;ball=330,160", 10},
    {"release-by-head", View::Open, "head=430,150;ball=450,150", 4},
    {"release-side", View::Front, "rubber=300,550;ball=200,100", 20},
    {"glove-fall", View::Open, "glove=450,250;glove-release=450,300", 10},
    {"back-knee", View::Open, "hip=300,400;knee=400,400;ankle=400,500", 90},
    {"back-knee", View::Closed, "hip=300,300;knee=300,400;ankle=400,500", 135},
    {"leg-spread", View::Open, "back-ankle=200,500;pelvis=300,400;lead-ankle=400,500", 90},
    {"trunk-forward", View::Open, "back-hip=300,400;neck=400,300", 45},
    {"trunk-forward", View::Closed, "back-hip=300,400;neck=242.265,300", 30},
    {"trunk-load", View::Open, "back-hip=300,400;neck=400,300", 45},
    {"trunk-load", View::Open, "back-hip=300,400;neck=242.265,300", -30},
    {"back-knee-plant", View::Open, "hip=300,300;knee=300,400;ankle=400,500", 135},
    {"head-to-ball", View::Open, "head=300,150;ball=330,190", 10},
    {"release-along", View::Open, "rubber=200,500;ball=245,200", 9},
    {"stride", View::Open, "back-ankle=200,500;lead-ankle=600,500", 80},
    {"head-drop", View::Open, "head-set=300,100;head-plant=310,150", 10},
    {"ground-fall", View::Open, "rubber=200,400;lead-heel=440,420", 4.7636}, // 1 in 12
    {"ground-fall", View::Closed, "rubber=400,400;lead-heel=300,400", 0},
    {"release-instant", View::Open,
     "ball=305,200;wrist=300,200;ball-1=327,200;wrist-1=310,200;ball-2=357,200;wrist-2=320,200", 4},
    {"elbow-bend", View::Open, "shoulder=300,200;elbow=200,200;wrist=200,100", 90},
};

MeasureInput inputOf(const HandCase& c) {
    MeasureInput in;
    in.view = c.view;
    in.heightPx = {500, 0};
    in.captureFps = 100;
    const std::string all = c.points;
    for (std::size_t at = 0; at < all.size();) {
        const std::size_t end = std::min(all.find(';', at), all.size());
        const std::string one = all.substr(at, end - at);
        const std::size_t equals = one.find('='), comma = one.find(',', equals);
        in.points[one.substr(0, equals)] = {
            {*parseNumber(one.substr(equals + 1, comma - equals - 1)), *parseNumber(one.substr(comma + 1))},
            0.1};
        at = end + 1;
    }
    return in;
}

void expectValue(const HandCase& c, const MeasureInput& in, const char* how) {
    const MeasureDefinition* m = test::playbook().measure(c.id);
    ASSERT_TRUE(m) << c.id;
    const MeasureValue v = evaluate(*m, in);
    ASSERT_EQ(v.state, MeasureState::Measured) << c.id << ", " << how << ": " << v.reason;
    EXPECT_NEAR(*v.value, c.expected, 0.01) << c.id << ", " << how;
    EXPECT_GT(v.high95, v.low95) << c.id;
    EXPECT_GE(c.expected, v.low95 - 0.01) << c.id;
    EXPECT_LE(c.expected, v.high95 + 0.01) << c.id;
}

TEST(HandCases, AHundredAndMoreInFourPictures) {
    ASSERT_GE(std::size(kCases), 100U);
    for (const HandCase& c : kCases) {
        const MeasureInput plain = inputOf(c);
        expectValue(c, plain, "as it is");
        MeasureInput mirrored = plain;
        mirrored.hand = Hand::Left;
        for (auto& [name, p] : mirrored.points) p.at.x = 800 - p.at.x;
        expectValue(c, mirrored, "left-hander in the mirror");
        MeasureInput rolled = plain;
        rolled.rollDeg = {10, 0};
        for (auto& [name, p] : rolled.points) p.at = rotated(p.at, 10);
        expectValue(c, rolled, "rolled camera");
        MeasureInput larger = plain;
        larger.heightPx = {1000, 0};
        for (auto& [name, p] : larger.points) p.at = p.at + p.at;
        expectValue(c, larger, "larger picture");
    }
}

TEST(HandCases, LeaveOutNoMeasureOfPoints) {
    std::set<std::string> worked;
    for (const HandCase& c : kCases) worked.insert(c.id);
    // Worked in measure_test.cpp.
    for (const char* id :
         {"front-knee-plant", "front-knee-release", "front-knee-change", "drive-line", "elbow-height"})
        worked.insert(id);
    for (const MeasureDefinition& m : test::playbook().measures)
        if (m.hasPoints()) {
            EXPECT_TRUE(worked.contains(m.id)) << m.id;
        }
}

TEST(HandCases, InchesComeFromAScaleWhereTheMeasureIsOneOfInches) {
    const HandCase c{"release-ahead", View::Open, "lead-ankle=400,500;ball=450,150", 0};
    MeasureInput in = inputOf(c);
    in.pxPerM = {196.8503937, 2}; // 5 pixels an inch
    const MeasureValue v = evaluate(*test::playbook().measure("release-ahead"), in);
    EXPECT_EQ(v.unit, "in");
    EXPECT_NEAR(*v.value, 10, 1e-6);
}

TEST(HandCases, ATurnWiderThanItsReferenceIsReadAsNone) {
    const HandCase c{"hips-open", View::Open,
                     "back-hip=300,400;lead-hip=404,400;back-hip-set=300,400;lead-hip-set=400,400", 0};
    const MeasureValue v = evaluate(*test::playbook().measure("hips-open"), inputOf(c));
    EXPECT_EQ(*v.value, 0);
    EXPECT_EQ(v.low95, 0);
    EXPECT_GE(v.high95, 0);
}

TEST(HandCases, ARoughSeparationIsSaidInWords) {
    const HandCase c{
        "separation", View::Open,
        "back-hip=300,400;lead-hip=310,400;back-hip-set=300,400;lead-hip-set=320,400;"
        "back-shoulder=300,200;lead-shoulder=334,200;back-shoulder-set=300,200;lead-shoulder-set=335,200",
        0};
    MeasureInput in = inputOf(c);
    for (auto& [name, p] : in.points) p.sigmaPx = 2;
    const MeasureValue v = evaluate(*test::playbook().measure("separation"), in);
    EXPECT_FALSE(v.value);
    EXPECT_EQ(v.state, MeasureState::NotVisible);
    EXPECT_NE(said(v.reason).find(said(v.words)), std::string::npos);
}

// 60 x 240 x 10 / 100 = 1,440 revolutions a minute.
TEST(HandCases, SpinAndItsAlias) {
    const MeasureDefinition& m = *test::playbook().measure("spin");
    MeasureInput in;
    in.captureFps = 240;
    in.frames = {{Moment::Release, 100}, {Moment::BallAway, 200}};
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt); // the turns are not counted yet
    in.numbers["turns"] = 10;
    const MeasureValue v = evaluate(m, in);
    EXPECT_NEAR(*v.value, 1440, 1e-9);
    EXPECT_TRUE(v.warnings.empty());
    in.frames[Moment::BallAway] = 112; // 10 turns in 12 frames: more than half a turn each
    const MeasureValue fast = evaluate(m, in);
    ASSERT_FALSE(fast.warnings.empty());
    EXPECT_NE(said(fast.warnings[0]).find("440"), std::string::npos); // 2.2 x 240 x 10 / 12
    // At 60 a second three turns in twelve frames may have been nine back: whatever was counted, it is said.
    in.captureFps = 60;
    in.numbers["turns"] = 3;
    EXPECT_FALSE(evaluate(m, in).warnings.empty());
}

// At 85 and about 54.5 ft one foot nearer looks about 1.6 faster (common practice, no source).
TEST(HandCases, AFootNearerLooksFaster) {
    MeasureInput in;
    in.numbers = {{"speed", 85}, {"usual", 54.5}, {"distance", 53.5}};
    const MeasureValue v = evaluate(*test::playbook().measure("looks-like"), in);
    EXPECT_NEAR(*v.value - 85, 1.6, 0.05);
}

// 54 ft in 108 frames of 240 a second: 54 / 0.45 s = 120 ft/s = 81.8 mph (1 mph = 22/15 ft/s).
TEST(HandCases, TheBallsMeanSpeedWithItsError) {
    const MeasureDefinition& m = *test::playbook().measure("ball-speed");
    MeasureInput in;
    in.captureFps = 240;
    in.frames = {{Moment::Release, 100}, {Moment::BallAtPlate, 208}};
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt); // the way is not known yet
    in.numbers["way"] = 54;
    const MeasureValue v = evaluate(m, in);
    EXPECT_NEAR(*v.value, 120 / (22.0 / 15), 1e-9);
    EXPECT_LT(v.low95, *v.value);
    EXPECT_GT(v.high95, *v.value);
    in.captureFps = 30; // the same half second at 30 a second is far less sure
    in.frames[Moment::BallAtPlate] = 113;
    const MeasureValue slow = evaluate(m, in);
    EXPECT_GT(slow.high95 - slow.low95, 4 * (v.high95 - v.low95));
    in.frames[Moment::BallAtPlate] = 101;
    EXPECT_FALSE(evaluate(m, in).value);
}

// 4 turns in 40 frames, 110 frames to the plate: 11 turns.
TEST(HandCases, TurnsAreCarriedOnToThePlate) {
    const MeasureDefinition& m = *test::playbook().measure("ball-turns");
    MeasureInput in;
    in.captureFps = 240;
    in.numbers["turns"] = 4;
    in.frames = {{Moment::Release, 100}, {Moment::BallAway, 140}, {Moment::BallAtPlate, 210}};
    const MeasureValue v = evaluate(m, in);
    EXPECT_NEAR(*v.value, 11, 1e-9);
    EXPECT_LT(v.low95, 11);
    EXPECT_GT(v.high95, 11);
    in.frames[Moment::BallAtPlate] = 130; // the plate before the counted end
    EXPECT_FALSE(evaluate(m, in).value);
}

TEST(HandCases, WhatIsSeenIsOneOfItsOptions) {
    const MeasureDefinition& m = *test::playbook().measure("landing-part");
    MeasureInput in;
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt);
    in.seen = "somehow";
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt);
    in.seen = "heel";
    EXPECT_EQ(evaluate(m, in).words, "heel");
    in.view = View::Front;
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotVisible);
}

} // namespace
} // namespace jg
