// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's shake taken out of the numbers, and put back.
#include "review/assess/assess.h"
#include "review/record/derived_json.h"
#include "review/record/edit.h"
#include "review/record/review_json.h"
#include "tests/support/core.h"

namespace jg {
namespace {

using L = Landmark;

/// A head that stays where it is in the place, on a camera that sinks by 30 px between Set and Plant.
Review shaken() {
    Review r;
    r.date = test::today();
    r.judging().approach = *test::playbook().approach("tall-and-closed");
    r.first().moments[Moment::Set] = {10, ""};
    r.first().moments[Moment::Plant] = {40, ""};
    r.first().points[{10, L::Crown}] = {{{500, 100}, 2}, ""};
    r.first().points[{10, L::Ground}] = {{{500, 600}, 2}, ""};
    r.first().points[{10, L::Head}] = {{{500, 130}, 2}, ""};
    r.first().points[{40, L::Head}] = {{{500, 160}, 2}, ""};
    return r;
}

double headDrop(const Review& r) {
    Clip clip;
    clip.width = 1280, clip.height = 720;
    return *assess(r, test::playbook(), clip, Hand::Right).measure("head-drop")->value.value;
}

TEST(Steadied, ShakeIsTakenOutOfWhatLiesBetweenTwoFrames) {
    Review r = shaken();
    const double shaking = headDrop(r);
    EXPECT_NEAR(shaking, 6, 0.3); // 30 of 500 px, all of it the camera's; nearness adds a little
    apply(r, {asIs("steady"), {SetShake{CameraShake{10, {{10, {0, 0}}, {40, {0, 30}}}, 0.2, true}}}, 1});
    const double steady = headDrop(r);
    EXPECT_NEAR(steady, shaking - 6, 0.05);
    DeliveryMarks stored = reviewFromJson(toJson(r))->first();
    ASSERT_TRUE(readDerived(derivedToJson(r.first()), stored));
    EXPECT_EQ(stored.shake, r.first().shake);
    CameraShake off = *r.first().shake;
    off.on = false;
    const Edit back = apply(r, {asIs("leave in"), {SetShake{off}}, 1});
    EXPECT_EQ(headDrop(r), shaking);
    apply(r, back);
    EXPECT_EQ(headDrop(r), steady);
    // The points themselves stay on the picture where they were clicked.
    EXPECT_EQ(r.first().points.at({40, L::Head}).point.at, (ImagePoint{500, 160}));
}

TEST(Steadied, TheShiftsErrorJoinsTheClicks) {
    Review r = shaken();
    r.first().shake = CameraShake{10, {{40, {3, 4}}}, 1.5, true};
    const ClickedPoint p = r.first().steadied(40, {{10, 10}, 2});
    EXPECT_EQ(p.at, (ImagePoint{7, 6}));
    EXPECT_NEAR(p.sigmaPx, 2.5, 1e-12);
    EXPECT_EQ(r.first().steadied(39, {{10, 10}, 2}), (ClickedPoint{{10, 10}, 2})); // not looked at there
}

} // namespace
} // namespace jg
