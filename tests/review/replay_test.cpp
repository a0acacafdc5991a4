// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/replay.h"

#include "review/record/review_json.h"
#include "tests/review/made_review.h"

#include <gtest/gtest.h>

namespace jg {
namespace {

const Stop kStop{{"s"}, StopKind::Correction, "", "t", 50};

TEST(Replay, APenThatIsNotFreeKeepsItsTwoEnds) {
    Take take;
    take.samples = 480000;
    take.events = {{.sample = 0, .kind = TakeEventKind::StrokeBegin, .at = {1, 1}, .pen = Pen::Arrow},
                   {.sample = 10, .kind = TakeEventKind::StrokeTo, .at = {2, 2}},
                   {.sample = 20, .kind = TakeEventKind::StrokeTo, .at = {9, 9}},
                   {.sample = 30, .kind = TakeEventKind::StrokeBegin, .at = {4, 4}},
                   {.sample = 40, .kind = TakeEventKind::StrokeDrop},
                   {.sample = 50, .kind = TakeEventKind::StrokeDrop},
                   {.sample = 60, .kind = TakeEventKind::StrokeDrop}};
    const DeliveryMarks none;
    const StageState drawn = stateAt(kStop, take, 30, none);
    ASSERT_EQ(drawn.drawn.size(), 2U);
    EXPECT_EQ(drawn.drawn[0].pen, Pen::Arrow);
    EXPECT_EQ(drawn.drawn[0].points, (std::vector<ImagePoint>{{1, 1}, {9, 9}}));
    EXPECT_EQ(stateAt(kStop, take, 45, none).drawn.size(), 1U);
    EXPECT_TRUE(stateAt(kStop, take, 70, none).drawn.empty()); // once more than there is: nothing happens
}

TEST(Replay, WhatFadesIsGoneAfterAWhileAndTheRestStays) {
    Take take;
    take.samples = 480000;
    take.events = {
        {.sample = 0, .kind = TakeEventKind::StrokeBegin, .at = {1, 1}, .pen = Pen::Line, .fades = true},
        {.sample = 48000, .kind = TakeEventKind::StrokeTo, .at = {2, 2}},
        {.sample = 48000, .kind = TakeEventKind::StrokeBegin, .at = {5, 5}, .pen = Pen::Ring}};
    const DeliveryMarks none;
    const auto clearAt = [&](double s) {
        const auto state = stateAt(kStop, take, static_cast<std::int64_t>(s * 48000), none);
        return state.drawn.size() == 2 ? state.drawn[0].clear : 0;
    };
    EXPECT_EQ(clearAt(3.9), 1); // since the hand stopped, not since it began
    EXPECT_NEAR(clearAt(1 + kFadeAfterS + kFadeS / 2), 0.5, 1e-6);
    EXPECT_LT(clearAt(1 + kFadeAfterS + kFadeS), 1e-9);
    EXPECT_EQ(stateAt(kStop, take, 480000, none).drawn.at(0).pen, Pen::Ring);
}

TEST(Replay, WhatWasDrawnAtAJointGoesWithItsCorrection) {
    Take take;
    take.samples = 48000;
    take.events = {{.sample = 0,
                    .kind = TakeEventKind::StrokeBegin,
                    .at = {10, 10},
                    .pen = Pen::Line,
                    .joint = Landmark::LeadKnee},
                   {.sample = 10, .kind = TakeEventKind::StrokeTo, .at = {30, 30}}};
    DeliveryMarks marks;
    marks.points[{50, Landmark::LeadKnee}] = {{{10, 10}, 2}, ""};
    EXPECT_EQ(stateAt(kStop, take, 20, marks).drawn.at(0).points[0], (ImagePoint{10, 10}));
    marks.points[{50, Landmark::LeadKnee}].point.at = {14, 11};
    EXPECT_EQ(stateAt(kStop, take, 20, marks).drawn.at(0).points[0], (ImagePoint{14, 11}));
    marks.points[{50, Landmark::LeadKnee}].hidden = "coat"; // no longer clicked: where it was drawn
    EXPECT_EQ(stateAt(kStop, take, 20, marks).drawn.at(0).points[0], (ImagePoint{10, 10}));
}

TEST(Replay, GoalAndLookFollowTheClockAndComeBackFromADocument) {
    Review review = test::review();
    review.stops = {kStop};
    Take take;
    take.file = "a.wav";
    take.samples = 48000;
    take.events = {{.sample = 100, .kind = TakeEventKind::GoalOff},
                   {.sample = 200, .kind = TakeEventKind::View, .at = {10, 20}, .to = {110, 220}},
                   {.sample = 300,
                    .kind = TakeEventKind::StrokeBegin,
                    .at = {1, 2},
                    .pen = Pen::Box,
                    .fades = true,
                    .joint = Landmark::BackElbow},
                   {.sample = 400, .kind = TakeEventKind::GoalOn},
                   {.sample = 500, .kind = TakeEventKind::View}};
    review.takes[kStop.id] = take;
    const auto back = reviewFromJson(toJson(review));
    ASSERT_TRUE(back);
    const Take& kept = back->takes.at(kStop.id);
    EXPECT_EQ(kept, take);
    const DeliveryMarks none;
    EXPECT_TRUE(stateAt(kStop, kept, 99, none).goal);
    EXPECT_FALSE(stateAt(kStop, kept, 300, none).goal);
    EXPECT_EQ(stateAt(kStop, kept, 300, none).part, (PictureBox{{10, 20}, {110, 220}}));
    EXPECT_TRUE(stateAt(kStop, kept, 400, none).goal);
    EXPECT_FALSE(stateAt(kStop, kept, 500, none).part);
}

} // namespace
} // namespace jg
