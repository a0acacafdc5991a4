// SPDX-License-Identifier: GPL-3.0-or-later
// The ghost of a review's measure, and its scales.
#include "review/assess/ghost.h"

#include "kinematics/geometry.h"
#include "review/record/camera_place.h"
#include "review/record/edit.h"
#include "review/record/review_json.h"
#include "tests/support/core.h"

namespace jg {
namespace {

using test::playbook;
using L = Landmark;

Clip sideClip() {
    Clip c;
    c.view = View::Open;
    c.width = 1280, c.height = 720;
    return c;
}

/// A right-hander seen from the open side: 900 px at Set make a height, leg spread 90 at plant.
Review shortStride() {
    Review r;
    r.date = test::today();
    r.judging().approach = *playbook().approach("load-and-drive");
    const auto place = [&](Moment moment, std::int64_t frame, std::map<L, ImagePoint> points) {
        r.first().moments[moment] = {frame, ""};
        for (const auto& [landmark, at] : points) r.first().points[{frame, landmark}] = {{at, 2}, ""};
    };
    place(Moment::Set, 10, {{L::Crown, {400, 100}}, {L::Ground, {400, 600}}});
    place(Moment::Plant, 40,
          {{L::BackAnkle, {400, 590}},
           {L::Pelvis, {560, 430}},
           {L::LeadAnkle, {720, 590}},
           {L::LeadHip, {570, 440}},
           {L::LeadKnee, {680, 480}}});
    return r;
}

MeasureRow rowOf(const Review& r, const char* id) {
    return *assess(r, playbook(), sideClip(), Hand::Right).measure(id);
}

Result<MeasureGhost> ghost(const Review& r, const char* id) {
    return ghostOf(r.first(), playbook(), rowOf(r, id), sideClip(), Hand::Right);
}

TEST(MeasureGhost, DrawsTheTargetAndSaysTheChangeWithFormulaAndLength) {
    Review r = shortStride();
    apply(r, {asIs("height"), {SetScale{ScaleKind::Height, ScaleMark{0, {}, {}, 1.75}}}, 1});
    const auto g = ghost(r, "leg-spread");
    ASSERT_TRUE(g) << said(g.error().text);
    EXPECT_EQ(g->frame, 40);
    EXPECT_EQ(g->label, "106\u00b0");
    EXPECT_FALSE(g->limbs.empty());
    EXPECT_NE(said(g->words).find("16\u00b0 more"), std::string::npos) << g->words;
    // The leg is 226 px and 500 px are 1.75 m: 31 in; 2 x 31 x (sin 53 - sin 45) = 5.7 in.
    EXPECT_NE(said(g->words).find("Stride = 2 x leg x sin(spread / 2), leg 31 in: 5.7 in more."),
              std::string::npos)
        << g->words;
}

TEST(MeasureGhost, WithoutAScaleLengthsAreOfTheHeight) {
    const auto g = ghost(shortStride(), "leg-spread");
    ASSERT_TRUE(g);
    EXPECT_NE(said(g->words).find("leg 45 % of height"), std::string::npos) << g->words;
}

TEST(MeasureGhost, OfADistanceFromALineBringsEveryPartInside) {
    Review r = shortStride();
    r.first().moments[Moment::Release] = {60, ""};
    const std::map<L, ImagePoint> arched = {{L::BackWrist, {800, 260}},
                                            {L::BackToe, {400, 590}},
                                            {L::BackHip, {630, 450}},
                                            {L::BackKnee, {540, 530}}};
    for (const Slot& slot : playbook().measure("drive-line")->slots)
        r.first().points[{60, slot.landmark}] = {
            {arched.contains(slot.landmark) ? arched.at(slot.landmark) : ImagePoint{800, 262}, 2}, ""};
    ASSERT_GT(*rowOf(r, "drive-line").value.value, 6);
    const auto g = ghost(r, "drive-line");
    ASSERT_TRUE(g) << said(g.error().text);
    EXPECT_EQ(g->label, "6 %");
}

TEST(MeasureGhost, SaysWhyThereIsNothingToDraw) {
    Review r = shortStride();
    EXPECT_EQ(ghost(r, "back-knee").error().code, ErrorCode::Refused); // not measured yet
    r.first().points[{40, L::LeadAnkle}].point.at.x = 900;
    r.first().points[{40, L::BackAnkle}].point.at.x = 300;
    const auto inside = ghost(r, "leg-spread");
    ASSERT_FALSE(inside);
    EXPECT_NE(said(inside.error().text).find("inside its target"), std::string::npos);
}

// Where the coach wants the joints: shown instead of the reckoned goal, without a number, kept and taken
// back.
TEST(MeasureGhost, AGoalByHandStandsForTheReckonedOne) {
    Review r = shortStride();
    const auto reckoned = ghost(r, "leg-spread");
    ASSERT_TRUE(reckoned && !reckoned->byHand);
    HandGoal goal{40, {}};
    for (const auto& [key, mark] : r.first().points)
        if (key.frame == 40) goal.joints[key.landmark] = mark.point.at;
    goal.joints[L::LeadAnkle] = {760, 580};
    const Edit back = apply(r, {asIs("goal"), {SetGoal{"leg-spread", goal}}, 1});
    const auto own = ghost(r, "leg-spread");
    ASSERT_TRUE(own);
    EXPECT_TRUE(own->byHand);
    EXPECT_EQ(said(own->label), "where I want you");
    EXPECT_EQ(own->labelAt, (ImagePoint{760, 580}));
    EXPECT_EQ(own->joints, std::vector{(ImagePoint{760, 580})}); // the others stay
    EXPECT_EQ(own->pose.size(), 5U);
    const auto again = reviewFromJson(toJson(r));
    ASSERT_TRUE(again) << said(again.error().text);
    EXPECT_EQ(again->first().goals, r.first().goals);
    // What is inside its target, too, may have one; of another frame than the position's it is none.
    r.first().goals.at("leg-spread").frame = 41;
    EXPECT_FALSE(ghost(r, "leg-spread")->byHand);
    apply(r, back);
    EXPECT_TRUE(r.first().goals.empty());
    EXPECT_EQ(ghost(r, "leg-spread")->joints, reckoned->joints);
}

TEST(MeasureGhost, AGoalOfAnythingElseThanAMeasuresJointsIsNotDrawn) {
    Review r = shortStride();
    r.first().goals["no-such-measure"] = {40, {{L::Pelvis, {1, 1}}}};
    r.first().goals["knee-holds"] = {40, {}};
    for (const MeasureRow& row : assess(r, playbook(), sideClip(), Hand::Right).measures) {
        const auto g = ghostOf(r.first(), playbook(), row, sideClip(), Hand::Right);
        EXPECT_FALSE(g && g->byHand) << row.id;
    }
    auto document = nlohmann::json::parse(toJson(r));
    document["deliveries"][0]["goals"]["leg-spread"] = {{"frame", 40}, {"joints", {{"tail", {1, 2}}}}};
    EXPECT_FALSE(reviewFromJson(document.dump()));
}

TEST(MeasureGhost, AMovedPointMovesItsGhost) {
    Review r = shortStride();
    const auto before = ghost(r, "leg-spread");
    apply(r, {asIs("move"), {SetPoint{{40, L::Pelvis}, PointMark{{{565, 440}, 2}, ""}}}, 1});
    const auto after = ghost(r, "leg-spread");
    ASSERT_TRUE(before && after);
    EXPECT_NE(before->joints, after->joints);
}

TEST(Scales, GiveInchesWithTheirErrorAndSayWhichOneWasUsed) {
    Review r = shortStride();
    r.extras = {"release-ahead"};
    r.first().moments[Moment::Release] = {60, ""};
    for (const Slot& slot : playbook().measure("release-ahead")->slots)
        r.first().points[{60, slot.landmark}] = {{{slot.landmark == L::Ball ? 800.0 : 700.0, 300}, 2}, ""};
    const MeasureValue without = rowOf(r, "release-ahead").value;
    ASSERT_TRUE(without.value);
    EXPECT_EQ(without.unit, "%");
    // The long side points at a camera that stands at the side: what it shows is no scale.
    apply(r,
          {asIs("scale"), {SetScale{ScaleKind::Rubber, ScaleMark{10, {300, 610}, {390, 600}, 0.6096}}}, 1});
    EXPECT_EQ(rowOf(r, "release-ahead").value.unit, "%");
    apply(r, {asIs("away"), {SetScale{ScaleKind::Rubber, std::nullopt}}, 1});
    const auto rubber = ScaleKind::RubberShort;
    apply(r, {asIs("scale"), {SetScale{rubber, ScaleMark{10, {300, 610}, {343.54, 610}, 0.1524}}}, 1});
    const MeasureValue with = rowOf(r, "release-ahead").value;
    EXPECT_EQ(with.unit, "in");
    // A hundredth of the height is so many inches of the rubber's 6 in 43.54 px.
    EXPECT_NEAR(*with.value / *without.value, heightOf(r.first()).value / 100 / 43.54 * 6, 0.01);
    EXPECT_TRUE(std::any_of(with.warnings.begin(), with.warnings.end(), [](const Message& w) {
        return said(w).find("Scale from the rubber") != std::string::npos;
    }));
    const auto stored = reviewFromJson(toJson(r));
    ASSERT_TRUE(stored) << said(stored.error().text);
    EXPECT_EQ(stored->first().scales, r.first().scales);
    const Edit back = apply(r, {asIs("away"), {SetScale{rubber, std::nullopt}}, 1});
    EXPECT_EQ(rowOf(r, "release-ahead").value.unit, "%");
    apply(r, back);
    EXPECT_EQ(r.first().scales.size(), 1U);
}

} // namespace
} // namespace jg
