// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's roll from marks, from the mound and from the film's edges.
#include "review/record/level.h"

#include "review/record/review_json.h"
#include "tests/support/core.h"

#include <cmath>

namespace jg {
namespace {

Clip film(View view, std::optional<double> tilt = std::nullopt) {
    Clip c;
    c.id = {"clip-1"};
    c.view = view;
    c.width = 1280, c.height = 720;
    c.tiltDeg = tilt;
    return c;
}

DeliveryMarks with(MarkKind kind, ImagePoint from, ImagePoint to) {
    DeliveryMarks d;
    d.marks["m"] = {"m", kind, 10, {from, to}};
    return d;
}

TEST(Level, NothingKnownIsTakenAsLevelAndSaysNothing) {
    const Level level = levelOf({}, film(View::Open), Hand::Right);
    EXPECT_EQ(level.rollDeg.value, 0);
    EXPECT_EQ(level.rollDeg.sd, 0);
    EXPECT_TRUE(level.by.empty());
}

TEST(Level, APlumbLineGoesBeforeTheMoundAndTheMoundBeforeTheEdges) {
    DeliveryMarks d = with(MarkKind::Mound, {200, 500}, {700, 541.67}); // falls 1 in 12 to the right
    EXPECT_NEAR(levelOf(d, film(View::Open, 3), Hand::Right).rollDeg.value, 0, 0.01);
    d.marks["p"] = {"p", MarkKind::Plumb, 10, {{600, 100}, {582.5, 600}}}; // leans by 2 degrees
    EXPECT_NEAR(levelOf(d, film(View::Open, 3), Hand::Right).rollDeg.value, 2.005, 0.01);
    const Level edges = levelOf({}, film(View::Open, 3), Hand::Right);
    EXPECT_EQ(edges.rollDeg.value, 3);
    EXPECT_GT(edges.rollDeg.sd, 0);
    EXPECT_EQ(edges.by, "upright edges in the film");
}

TEST(Level, TheMoundFallsTowardThePlateOnEitherSide) {
    // One inch a foot is 4.764 degrees; the picture is rolled by 2 clockwise.
    const double down = 6.764 / 57.29578, up = -2.764 / 57.29578;
    const ImagePoint a{300, 400};
    const DeliveryMarks right = with(MarkKind::Mound, a, {a.x + 400, a.y + 400 * std::tan(down)});
    EXPECT_NEAR(levelOf(right, film(View::Open), Hand::Right).rollDeg.value, 2, 0.01);
    // A left-hander's plate lies to the left: the same mound rises to the right, less the roll.
    const DeliveryMarks left = with(MarkKind::Mound, a, {a.x + 400, a.y + 400 * std::tan(up)});
    EXPECT_NEAR(levelOf(left, film(View::Open), Hand::Left).rollDeg.value, 2, 0.01);
    EXPECT_EQ(levelOf(right, film(View::Front), Hand::Right).rollDeg.sd, 0); // no slope across
}

TEST(Level, APostFarFromTheMiddleLeansByHowFarTheCameraLooksDown) {
    // Crown and ground at Set 500 px apart, the lens 4.2 heights away and 0.6 above the ground.
    DeliveryMarks d = with(MarkKind::Plumb, {1180, 100}, {1180, 600});
    d.moments[Moment::Set].frame = 3;
    const auto looksFrom = [&](double groundY) {
        d.points[{3, Landmark::Ground}].point = {{640, groundY}, 1.5};
        d.points[{3, Landmark::Crown}].point = {{640, groundY - 500}, 1.5};
        return levelOf(d, film(View::Open), Hand::Right).rollDeg;
    };
    EXPECT_NEAR(looksFrom(360 + 0.6 * 500).value, 0, 0.05); // level: upright is upright
    const double pitch = std::atan(0.6 / 4.2) - std::atan(0.2 / 4.2);
    const double lean = std::atan2(540 * std::tan(pitch), 4.2 * 500 + 10 * std::tan(pitch)) * 57.29578;
    EXPECT_NEAR(looksFrom(360 + 0.2 * 500).value, -lean, 0.05); // it looks down: the post leans inward
    EXPECT_GT(lean, 1.3);
    EXPECT_GT(looksFrom(460).sd, 0.3); // how far it looks down is not known well
}

TEST(Level, TheEdgesAreKeptWithTheFilm) {
    Submission s;
    s.received = test::today();
    s.clips = {film(View::Open, 1.25), film(View::Front)};
    auto back = submissionFromJson(toJson(s));
    ASSERT_TRUE(back);
    for (std::size_t i = 0; i < s.clips.size(); ++i) {
        EXPECT_FALSE(back->clips.at(i).tiltDeg); // what is derived lies beside the film
        ASSERT_TRUE(readSurvey(surveyToJson(s.clips[i]), back->clips[i]));
    }
    EXPECT_EQ(back->clips, s.clips);
}

} // namespace
} // namespace jg
