// SPDX-License-Identifier: GPL-3.0-or-later
// Each measure against hand-worked values, right- and left-handed, level and rolled.
#include "kinematics/measure.h"

#include "kinematics/geometry.h"
#include "kinematics/propagation.h"
#include "tests/support/core.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

const MeasureDefinition& measure(const char* id) {
    return *test::playbook().measure(id);
}

MeasureInput inputOf(std::map<std::string, ImagePoint> points, Hand hand = Hand::Right,
                     View view = View::Open) {
    MeasureInput in;
    in.hand = hand;
    in.view = view;
    for (const auto& [name, p] : points) in.points[name] = {p, 2.0};
    return in;
}

double valueOf(const char* id, const MeasureInput& in) {
    const MeasureValue v = evaluate(measure(id), in);
    EXPECT_EQ(v.state, MeasureState::Measured) << id << ": " << v.reason;
    return v.value.value_or(std::nan(""));
}

/// The same picture seen in a mirror of the given width.
MeasureInput mirrored(MeasureInput in, double width) {
    for (auto& [name, p] : in.points) p.at.x = width - p.at.x;
    in.hand = in.hand == Hand::Right ? Hand::Left : Hand::Right;
    return in;
}

struct Case {
    const char* id;
    std::map<std::string, ImagePoint> points;
    double expected;
    double heightPx = 0;
};

// Worked by hand: corners of known triangles (3-4-5, 45 and 60 degrees).
const std::vector<Case>& cases() {
    static const std::vector<Case> all = {
        {"back-knee", {{"hip", {300, 400}}, {"knee", {400, 400}}, {"ankle", {400, 500}}}, 90},
        {"back-knee", {{"hip", {300, 300}}, {"knee", {300, 400}}, {"ankle", {300, 500}}}, 180},
        {"back-knee", {{"hip", {300, 300}}, {"knee", {400, 400}}, {"ankle", {300, 500}}}, 90},
        {"leg-spread", {{"back-ankle", {200, 500}}, {"pelvis", {300, 400}}, {"lead-ankle", {400, 500}}}, 90},
        {"leg-spread",
         {{"back-ankle", {126.795, 500}}, {"pelvis", {300, 400}}, {"lead-ankle", {473.205, 500}}},
         120},
        {"front-knee-plant", {{"hip", {400, 400}}, {"knee", {500, 400}}, {"ankle", {570.711, 470.711}}}, 135},
        {"front-knee-release", {{"hip", {400, 300}}, {"knee", {400, 400}}, {"ankle", {400, 520}}}, 180},
        {"front-knee-change",
         {{"hip-plant", {400, 400}},
          {"knee-plant", {500, 400}},
          {"ankle-plant", {500, 500}},
          {"hip-release", {400, 400}},
          {"knee-release", {500, 400}},
          {"ankle-release", {570.711, 470.711}}},
         45},
        {"trunk-forward", {{"back-hip", {300, 400}}, {"neck", {400, 300}}}, 45},
        {"trunk-forward", {{"back-hip", {300, 400}}, {"neck", {270, 360}}}, -36.8699},
        {"elbow-bend", {{"shoulder", {300, 300}}, {"elbow", {200, 300}}, {"wrist", {200, 200}}}, 90},
        {"elbow-height",
         {{"lead-shoulder", {400, 300}}, {"back-shoulder", {300, 300}}, {"elbow", {200, 300}}},
         0},
        {"elbow-height",
         {{"lead-shoulder", {400, 300}}, {"back-shoulder", {300, 300}}, {"elbow", {200, 200}}},
         45},
        {"elbow-height",
         {{"lead-shoulder", {400, 300}}, {"back-shoulder", {300, 300}}, {"elbow", {200, 357.735}}},
         -30},
        {"stride", {{"back-ankle", {200, 500}}, {"lead-ankle", {520, 500}}}, 80, 400},
        {"stride", {{"back-ankle", {200, 500}}, {"lead-ankle", {500, 900}}}, 125, 400},
        {"head-drop", {{"head-set", {300, 200}}, {"head-plant", {500, 260}}}, 15, 400},
        {"drive-line",
         {{"hand", {600, 100}}, {"toe", {200, 500}}, {"hip", {400, 300}}, {"knee", {300, 400}}},
         0,
         400},
        {"drive-line",
         {{"hand", {600, 300}}, {"toe", {200, 300}}, {"hip", {400, 320}}, {"knee", {300, 312}}},
         5,
         400},
    };
    return all;
}

TEST(Measure, HandWorkedValues) {
    for (const Case& c : cases()) {
        MeasureInput in = inputOf(c.points);
        in.heightPx = {c.heightPx, 0};
        EXPECT_NEAR(valueOf(c.id, in), c.expected, 1e-3) << c.id;
    }
}

TEST(Measure, LeftHanderInAMirroredPictureHasTheSameNumbers) {
    for (const Case& c : cases()) {
        MeasureInput in = mirrored(inputOf(c.points), 1280);
        in.heightPx = {c.heightPx, 0};
        EXPECT_NEAR(valueOf(c.id, in), c.expected, 1e-3) << c.id;
    }
}

TEST(Measure, ARolledPictureIsPutRightByItsLevel) {
    for (const double roll : {-8.0, 3.0, 11.0})
        for (const Case& c : cases()) {
            MeasureInput in = inputOf(c.points);
            for (auto& [name, p] : in.points) p.at = rotated(p.at, roll);
            in.rollDeg = {roll, 0};
            in.heightPx = {c.heightPx, 0};
            EXPECT_NEAR(valueOf(c.id, in), c.expected, 1e-3) << c.id << " rolled by " << roll;
        }
}

TEST(Measure, ClosedSideTurnsTheTargetRound) {
    const MeasureInput in =
        inputOf({{"back-hip", {400, 400}}, {"neck", {300, 300}}}, Hand::Right, View::Closed);
    EXPECT_NEAR(valueOf("trunk-forward", in), 45, 1e-9);
}

// Facts of the trade (common practice, no source): a camera turned 20 degrees makes a true 129 knee read
// about 132 and a true 110 leg spread about 107. Entering the turn gives the true angle back.
TEST(Measure, CameraYawIsTakenOut) {
    const double squeeze = std::cos(20 / kDegPerRad);
    const auto lower = [](double angle) {
        return ImagePoint{100 * std::sin(angle / 2 / kDegPerRad), 100 * std::cos(angle / 2 / kDegPerRad)};
    };
    const ImagePoint leg = lower(110);
    MeasureInput spread = inputOf({{"pelvis", {0, 0}},
                                   {"back-ankle", {-leg.x * squeeze, leg.y}},
                                   {"lead-ankle", {leg.x * squeeze, leg.y}}});
    EXPECT_NEAR(valueOf("leg-spread", spread), 107, 0.7);
    spread.yawDeg = {20, 0};
    EXPECT_NEAR(valueOf("leg-spread", spread), 110, 1e-9);
    const ImagePoint half{100 * std::cos(129.0 / 2 / kDegPerRad), 100 * std::sin(129.0 / 2 / kDegPerRad)};
    const MeasureInput knee = inputOf(
        {{"knee", {0, 0}}, {"hip", {-half.x * squeeze, -half.y}}, {"ankle", {-half.x * squeeze, half.y}}});
    EXPECT_NEAR(valueOf("front-knee-plant", knee), 132, 0.5);
}

TEST(Measure, UncertainYawWidensTheError) {
    MeasureInput in =
        inputOf({{"pelvis", {300, 400}}, {"back-ankle", {150, 500}}, {"lead-ankle", {450, 500}}});
    in.yawDeg = {15, 0};
    const double sure = evaluate(measure("leg-spread"), in).sd;
    in.yawDeg = {15, 5};
    EXPECT_GT(evaluate(measure("leg-spread"), in).sd, sure * 1.02);
}

TEST(Measure, TimesCountCaptureFramesWithTheirBracket) {
    MeasureInput in;
    in.captureFps = 60;
    in.frames = {{Moment::Plant, 48}, {Moment::Release, 57}};
    const MeasureValue v = evaluate(measure("plant-to-release"), in);
    EXPECT_NEAR(*v.value, 150, 1e-9);
    EXPECT_NEAR(v.low95, 1000.0 * 8 / 60, 1e-9);
    EXPECT_NEAR(v.high95, 1000.0 * 10 / 60, 1e-9);
    in.frames = {{Moment::HandAboveShoulder, 100}, {Moment::Plant, 106}};
    in.captureFps = 240;
    EXPECT_NEAR(*evaluate(measure("hand-early"), in).value, 25, 1e-9);
}

TEST(Measure, FramesWhileSomethingHoldsNeedNoRate) {
    MeasureDefinition m = measure("plant-to-release");
    m.kind = MeasureKind::FrameCount;
    m.unit = "frames";
    MeasureInput in;
    in.frames = {{m.moments[0], 100}, {m.moments[1], 107}};
    const MeasureValue v = evaluate(m, in);
    EXPECT_EQ(v.value, 7);
    EXPECT_EQ(v.low95, 6);
    EXPECT_EQ(v.high95, 8);
    in.frames.erase(m.moments[1]);
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt);
}

TEST(Measure, AnUnknownRateIsNoTime) {
    MeasureInput in;
    in.frames = {{Moment::Plant, 48}, {Moment::Release, 57}};
    const MeasureValue v = evaluate(measure("plant-to-release"), in);
    EXPECT_FALSE(v.value);
    EXPECT_EQ(v.state, MeasureState::NotVisible);
    EXPECT_NE(said(v.reason).find("rate is unknown"), std::string::npos);
}

TEST(Measure, AWrongViewSaysWhichOneToAskFor) {
    MeasureInput in =
        inputOf({{"hip", {1, 2}}, {"knee", {3, 9}}, {"ankle", {5, 6}}}, Hand::Right, View::Front);
    const MeasureValue v = evaluate(measure("back-knee"), in);
    EXPECT_EQ(v.state, MeasureState::NotVisible);
    EXPECT_NE(said(v.reason).find("open side"), std::string::npos);
}

TEST(Measure, AMissingPointIsNamed) {
    const MeasureValue v = evaluate(measure("back-knee"), inputOf({{"hip", {1, 2}}, {"knee", {3, 4}}}));
    EXPECT_EQ(v.state, MeasureState::NotLookedAt);
    EXPECT_NE(said(v.reason).find("back ankle"), std::string::npos);
}

TEST(Measure, EqualPointsAreRefusedInWords) {
    const MeasureValue v =
        evaluate(measure("back-knee"), inputOf({{"hip", {1, 2}}, {"knee", {1, 2}}, {"ankle", {5, 6}}}));
    EXPECT_FALSE(v.value);
    EXPECT_NE(said(v.reason).find("same spot"), std::string::npos);
}

TEST(Measure, ALineThatPointsAtTheCameraIsNoNumber) {
    const auto elbow = [](double width) {
        return evaluate(measure("elbow-height"), inputOf({{"lead-shoulder", {400, 300}},
                                                          {"back-shoulder", {400 - width, 300}},
                                                          {"elbow", {300, 290}}}));
    };
    // 2 px at both ends of 120 px are 1.4 degrees; of 6 px they are 27, and twice that on either side.
    EXPECT_EQ(elbow(120).state, MeasureState::Measured);
    const MeasureValue v = elbow(6);
    EXPECT_EQ(v.state, MeasureState::NotVisible);
    EXPECT_FALSE(v.value);
    EXPECT_NE(said(v.reason).find("end-on"), std::string::npos) << v.reason;
    EXPECT_NE(said(v.reason).find("closed side"), std::string::npos) << v.reason;
    const auto stance = [](double shoulders) {
        return evaluate(measure("stance-width"), inputOf({{"back-ankle", {300, 500}},
                                                          {"lead-ankle", {360, 500}},
                                                          {"back-shoulder", {320, 300}},
                                                          {"lead-shoulder", {320 + shoulders, 300}}}));
    };
    EXPECT_EQ(stance(60).state, MeasureState::Measured);
    EXPECT_EQ(stance(5).state, MeasureState::NotVisible);
}

TEST(Measure, WithoutASizeALengthAsksForOneAndWithAScaleItIsInInches) {
    MeasureInput in = inputOf({{"back-ankle", {200, 500}}, {"lead-ankle", {520, 500}}});
    EXPECT_FALSE(evaluate(measure("stride"), in).value);
    in.pxPerM = {200, 4};
    const MeasureValue v = evaluate(measure("stride"), in);
    EXPECT_EQ(v.unit, "in");
    EXPECT_NEAR(*v.value, 320.0 / 200 * 39.37007874, 1e-6);
    EXPECT_GT(v.sd, 0.02 * *v.value * 0.9); // the scale's own 2 %
    in.lengths = LengthUnit::Centimetres;
    const MeasureValue metric = evaluate(measure("stride"), in);
    EXPECT_EQ(metric.unit, "cm");
    EXPECT_NEAR(*metric.value, 160, 1e-6);
    EXPECT_NEAR(metric.sd, v.sd * 2.54, 1e-6);
}

// Reference: direct simulation. The first-order sd agrees with 100,000 draws within 5 %.
TEST(Measure, FirstOrderErrorAgreesWithMonteCarlo) {
    std::mt19937_64 engine(20261125);
    std::normal_distribution<double> normal;
    for (const Case& c : cases()) {
        if (c.expected > 170 || c.expected == 0) continue; // folded at the ends: see docs/methods.md
        MeasureInput in = inputOf(c.points);
        in.heightPx = {c.heightPx, c.heightPx > 0 ? 2.5 : 0};
        in.rollDeg = {0, 0.5};
        const double sd = evaluate(measure(c.id), in).sd;
        constexpr int kDraws = 100000;
        double sum = 0, squares = 0;
        MeasureInput exact = in;
        exact.heightPx.sd = exact.rollDeg.sd = 0;
        for (auto& [name, p] : exact.points) p.sigmaPx = 0;
        for (int i = 0; i < kDraws; ++i) {
            MeasureInput draw = exact;
            for (auto& [name, p] : draw.points)
                p.at = {p.at.x + 2 * normal(engine), p.at.y + 2 * normal(engine)};
            draw.heightPx.value += in.heightPx.sd * normal(engine);
            draw.rollDeg.value += in.rollDeg.sd * normal(engine);
            const double v = *evaluate(measure(c.id), draw).value - c.expected;
            sum += v;
            squares += v * v;
        }
        const double drawn = std::sqrt(squares / kDraws - sum * sum / kDraws / kDraws);
        // The larger of two distances near each other is not smooth: a wider band there.
        EXPECT_NEAR(sd / drawn, 1, std::string(c.id) == "drive-line" ? 0.1 : 0.05) << c.id;
    }
}

TEST(Measure, ANumberNearItsFoldIsFreedOfWhatErrorAdds) {
    EXPECT_EQ(withoutFold(7, 0), 7);
    EXPECT_EQ(withoutFold(0.5, 1), 0);
    EXPECT_NEAR(withoutFold(6, 1), 6, 1e-6);
    std::mt19937_64 engine(5);
    std::normal_distribution<double> normal;
    for (const double truth : {0.75, 1.0, 3.0}) {
        double sum = 0, plain = 0;
        constexpr int kDraws = 20000;
        for (int i = 0; i < kDraws; ++i) {
            const double seen = std::abs(truth + normal(engine));
            plain += seen / kDraws;
            sum += withoutFold(seen, 1) / kDraws;
        }
        EXPECT_NEAR(sum, truth, 0.1) << truth;
        if (truth <= 1) {
            EXPECT_GT(plain, truth + 0.15) << truth;
        }
    }
}

TEST(Measure, ErrorsOfTwoFramesAreSeparate) {
    const MeasureInput in = inputOf({{"hip-plant", {400, 400}},
                                     {"knee-plant", {500, 400}},
                                     {"ankle-plant", {500, 500}},
                                     {"hip-release", {400, 400}},
                                     {"knee-release", {500, 400}},
                                     {"ankle-release", {500, 500}}});
    const double change = evaluate(measure("front-knee-change"), in).sd;
    const double one = evaluate(measure("front-knee-plant"),
                                inputOf({{"hip", {400, 400}}, {"knee", {500, 400}}, {"ankle", {500, 500}}}))
                           .sd;
    EXPECT_NEAR(change, one * std::sqrt(2.0), 1e-6);
}

TEST(Catalogue, ABrokenFileNamesItsRow) {
    const auto parsed = parseMeasures(
        R"({"measures":[{"id":"x","name":"X","group":"lower","kind":"jointAngle","unit":"deg","positions":["load"],"views":["open"],"points":[],"formula":"f","source":"s"}]})");
    ASSERT_FALSE(parsed);
    EXPECT_EQ(parsed.error().code, ErrorCode::BadInput);
    EXPECT_NE(said(parsed.error().text).find("measure x"), std::string::npos);
    EXPECT_FALSE(parseMeasures("not json"));
}

TEST(Catalogue, HoldsTheTwelveMeasuresWithTheirDefinition) {
    for (const char* id :
         {"back-knee", "leg-spread", "front-knee-plant", "front-knee-release", "trunk-forward", "drive-line",
          "elbow-bend", "elbow-height", "head-drop", "stride", "hand-early", "plant-to-release"}) {
        const MeasureDefinition* m = test::playbook().measure(id);
        ASSERT_TRUE(m) << id;
        EXPECT_FALSE(m->formula.empty());
        EXPECT_FALSE(m->source.empty());
        EXPECT_FALSE(m->views.empty());
        EXPECT_FALSE(m->plainly.empty());
    }
}

} // namespace
} // namespace jg
