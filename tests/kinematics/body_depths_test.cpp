// SPDX-License-Identifier: GPL-3.0-or-later
// The table of the body's depths.
#include "kinematics/body_depths.h"

#include "kinematics/geometry.h"
#include "tests/support/core.h"

#include <cmath>

namespace jg {
namespace {

/// Points seen by a camera that is turned by 20 degrees.
MeasureInput fromAside(std::map<std::string, ClickedPoint> points) {
    MeasureInput in;
    in.points = std::move(points);
    in.heightPx = {500, 1};
    in.yawDeg = {20, 1};
    in.camera = CameraPlace{{640, 360}, {4, 0.4}, {2, 1}, {640, 400}};
    return in;
}

TEST(BodyDepths, AreMirroredForTheOtherSideAndFilledByMoment) {
    const auto depths = BodyDepths::parse(
        R"({"depths": {"plant": {"lead-knee": [[0.1, 0.02, -0.01], [0.3, 0.04, 0.03]]}, "set": {"pelvis": [[0.01, 0, 0], [-0.2, 0.03, 0]]}}})");
    ASSERT_TRUE(depths);
    EXPECT_EQ(depths->toward(View::Open, Moment::Plant, Landmark::LeadKnee)->value, 0.1);
    EXPECT_EQ(depths->toward(View::Closed, Moment::Plant, Landmark::LeadKnee)->value, -0.1);
    EXPECT_EQ(depths->toward(View::Rear, Moment::Plant, Landmark::LeadKnee)->value, -0.3);
    EXPECT_EQ(depths->toward(View::Closed, Moment::Plant, Landmark::LeadKnee)->shared.at(0), 0.01);
    EXPECT_FALSE(depths->toward(View::Open, Moment::Load, Landmark::LeadKnee));
    MeasureInput in;
    depths->fill(*test::playbook().measure("front-knee-plant"), in);
    EXPECT_EQ(in.depths.size(), 1U); // the table knows one of its three points
    EXPECT_EQ(in.depths.at("knee").sd, 0.02);
    EXPECT_EQ(in.heightDepth.value, 0.01);
}

TEST(BodyDepths, AShiftOfTheWholeBodyHardlyMovesATilt) {
    const MeasureDefinition& m = *test::playbook().measure("trunk-forward");
    MeasureInput in = fromAside({{"back-hip", {{640, 400}, 1}}, {"neck", {{700, 250}, 1}}});
    const auto sdWith = [&](double together) {
        for (const char* slot : {"back-hip", "neck"}) in.depths[slot] = {0.02, 0.06, {together}};
        return evaluate(m, in).sd;
    };
    EXPECT_GT(sdWith(0), 1.5 * sdWith(0.06)); // each by itself, and as one
    EXPECT_GT(sdWith(0.03), sdWith(0.06));
}

TEST(BodyDepths, AnAnkleThatLiesNearAtOnePositionLiesNearAtTheNext) {
    const MeasureDefinition& m = *test::playbook().measure("foot-from-above");
    MeasureInput in =
        fromAside({{"lead-ankle", {{600, 250}, 1}}, {"lead-ankle-foot-touch", {{680, 240}, 1}}});
    const auto sdWith = [&](std::vector<double> shared) {
        for (const Slot& slot : m.slots) in.depths[slot.name] = {0.02, 0.06, shared};
        return evaluate(m, in).sd;
    };
    EXPECT_GT(sdWith({}), 1.5 * sdWith({0, 0.06}));
    EXPECT_NEAR(sdWith({0.036, 0.048}), sdWith({0.06, 0}), 1e-6); // two ways that make the same whole
}

TEST(BodyDepths, OnlyWhatIsSharedGoesTogether) {
    const Depth a{0, 0.05, {0.03, -0.01}}, b{0, 0.05, {0.02, 0.02, 0.5}};
    EXPECT_NEAR(covariance(a, b), 0.03 * 0.02 - 0.01 * 0.02, 1e-15);
    EXPECT_EQ(covariance(a, Depth{}), 0);
}

TEST(BodyDepths, AfterItsMomentAJointHasMovedOn) {
    const auto depths = BodyDepths::parse(
        R"({"depths": {"release": {"back-wrist": [[0.1, 0.02], [0, 0]], "ball": [[0.12, 0.02], [0, 0]]}},
            "speeds": {"release": {"back-wrist": [[-6, 1.5], [3, 1]]}}})");
    ASSERT_TRUE(depths) << said(depths.error().text);
    MeasureInput in;
    in.captureFps = 120;
    for (const auto& [view, side] : {std::pair{View::Open, 1}, std::pair{View::Closed, -1}}) {
        in.view = view;
        depths->fill(*test::playbook().measure("release-instant"), in);
        EXPECT_NEAR(in.depths.at("wrist").value, side * 0.1, 1e-12);
        EXPECT_EQ(in.depths.at("wrist").drift, 0);
        EXPECT_NEAR(in.depths.at("wrist-2").value, side * (0.1 - 6 * 2 / 120.0), 1e-12);
        EXPECT_NEAR(std::abs(in.depths.at("wrist-2").drift), 1.5 * 2 / 120.0, 1e-12);
        EXPECT_NEAR(in.depths.at("ball-2").value, side * 0.12, 1e-12); // its speed is not in the table
    }
}

/// A pinhole turned by 20 degrees, 2000 px of height and focal length, 4 heights away: where a place `along`
/// and `depth` of the standing body is seen, in heights.
ImagePoint seenAside(double along, double depth) {
    const double ca = std::cos(20 / kDegPerRad), sa = std::sin(20 / kDegPerRad);
    const double x = along * ca - depth * sa, nearer = depth * ca + along * sa;
    return {640 + 4 * 500 * x / (4 - nearer), 400};
}

/// The height is seen where the body stood, and a turned camera stands nearer to there or farther.
TEST(BodyDepths, TheHeightIsThatOfThePlane) {
    const MeasureDefinition& m = *test::playbook().measure("glove-reach");
    constexpr double kStood = -0.45, kNearer = 0.34202 * kStood; // of the plane's middle, in heights
    MeasureInput in = fromAside({{"lead-ankle", {seenAside(0.25, 0), 0}}});
    in.camera = CameraPlace{{640, 400}, {4, 0}, {0, 0}, seenAside(kStood, 0)};
    in.heightPx = {500 * 4 / (4 - kNearer), 0};
    in.yawDeg.sd = 0;
    for (const double depth : {0.0, 0.2}) {
        in.depths["glove"] = {depth};
        in.points["glove"] = {seenAside(0.4, depth), 0};
        EXPECT_NEAR(*evaluate(m, in).value, 15, 1e-3) << depth;
    }
}

TEST(BodyDepths, ABrokenTableIsRefusedWithTheRowNamed) {
    for (const char* text :
         {"", "{}", R"({"depths": {"plant": {"nose": [[0, 0], [0, 0]]}}})",
          R"({"depths": {"plant": {"head": [[0, 0], [0]]}}})", R"({"depths": {"plant": {"head": [0, 0]}}})",
          R"({"depths": {}, "speeds": {"release": {"ball": [[0], [0, 0]]}}})"}) {
        const auto depths = BodyDepths::parse(text);
        ASSERT_FALSE(depths) << text;
        EXPECT_EQ(depths.error().code, ErrorCode::BadInput);
    }
    EXPECT_NE(said(BodyDepths::parse(R"({"depths": {"plant": {"head": [0, 0]}}})").error().text)
                  .find("plant, head"),
              std::string::npos);
}

TEST(BodyDepths, TheShippedTableKnowsEveryLandmarkAtEveryKeyPosition) {
    for (const MomentInfo& m : keyPositions())
        for (const LandmarkInfo& l : allLandmarks())
            EXPECT_TRUE(test::playbook().depths.toward(View::Open, m.moment, l.landmark))
                << m.id << " " << l.id;
}

} // namespace
} // namespace jg
