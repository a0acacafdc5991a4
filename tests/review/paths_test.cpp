// SPDX-License-Identifier: GPL-3.0-or-later
// Paths of a review: what is followed, when a path holds, what it tells, what is guessed.
#include "review/record/paths.h"

#include "review/assess/guess.h"
#include "review/assess/guide.h"
#include "review/record/derived_json.h"
#include "review/record/edit.h"
#include "review/record/review_json.h"
#include "tests/support/core.h"

#include <algorithm>
#include <cmath>

namespace jg {
namespace {

using L = Landmark;

Clip followedClip() {
    Clip c;
    c.view = View::Open;
    c.captureFps = 240;
    c.frames = 300;
    c.width = 1280, c.height = 720;
    return c;
}

Review clicked() {
    Review r;
    r.date = test::today();
    r.judging().approach = *test::playbook().approach("load-and-drive");
    r.first().moments[Moment::Plant] = {100, ""};
    r.first().moments[Moment::Release] = {140, ""};
    for (const std::int64_t frame : {100, 140}) {
        r.first().points[{frame, L::BackWrist}] = {{{500.0 + static_cast<double>(frame), 200}, 2}, ""};
        r.first().points[{frame, L::Ground}] = {{{500, 600}, 2}, ""};
    }
    return r;
}

FollowedPath handPath(const Review& r) {
    FollowedPath path;
    for (const std::int64_t frame : {100, 140})
        path.from.push_back({frame, r.first().point(frame, L::BackWrist)->point.at, 2});
    for (std::int64_t n = 100; n <= 140; ++n) { // it waits, then goes to the plate
        const double t = static_cast<double>(std::max<std::int64_t>(0, n - 120));
        path.places.push_back({n, {600 + t * t * 0.1, 200}, 0.3});
    }
    return path;
}

TEST(Paths, JointsClickedTwiceAreFollowedAndTheFieldIsNot) {
    const auto stretches = stretchesToFollow(clicked().first());
    ASSERT_EQ(stretches.size(), 1U);
    EXPECT_EQ(stretches[0].landmark, L::BackWrist);
    EXPECT_EQ(stretches[0].from.frame, 100);
    EXPECT_EQ(stretches[0].to.frame, 140);
    Review hidden = clicked();
    hidden.first().points[{140, L::BackWrist}].hidden = "behind the body";
    EXPECT_TRUE(stretchesToFollow(hidden.first()).empty());
}

TEST(Paths, HoldWhileTheirPointsStayAndComeBackWithUndo) {
    Review r = clicked();
    apply(r, {asIs("follow"), {SetPath{L::BackWrist, handPath(r)}}, 1});
    EXPECT_EQ(pathOf(r.first(), L::BackWrist).size(), 41U);
    EXPECT_EQ(followedLandmarks(r.first()), std::vector<L>{L::BackWrist});
    DeliveryMarks stored = reviewFromJson(toJson(r))->first();
    EXPECT_TRUE(stored.paths.empty()); // what is derived lies beside the film
    ASSERT_TRUE(readDerived(derivedToJson(r.first()), stored));
    EXPECT_EQ(stored.paths, r.first().paths);
    const Edit back =
        apply(r, {asIs("move"), {SetPoint{{140, L::BackWrist}, PointMark{{{700, 210}, 2}, ""}}}, 1});
    EXPECT_TRUE(pathOf(r.first(), L::BackWrist).empty());
    apply(r, back);
    EXPECT_EQ(pathOf(r.first(), L::BackWrist).size(), 41U);
}

TEST(Paths, TellWhenTheHandGoesForward) {
    Review r = clicked();
    apply(r, {asIs("follow"), {SetPath{L::BackWrist, handPath(r)}}, 1});
    const auto events = momentsFromPaths(r.first(), followedClip(), Hand::Right);
    ASSERT_TRUE(events.contains(Moment::HandForward));
    EXPECT_NEAR(static_cast<double>(events.at(Moment::HandForward).frame), 123, 2);
    // Seen from the other side the same way leads from the plate.
    Clip closed = followedClip();
    closed.view = View::Closed;
    EXPECT_FALSE(momentsFromPaths(r.first(), closed, Hand::Right).contains(Moment::HandForward));
    EXPECT_TRUE(momentsFromPaths(r.first(), closed, Hand::Left).contains(Moment::HandForward));
}

/// A review whose path of a landmark is given by a function of the frame, from Hands part to Release.
template <typename At>
void follow(Review& r, L landmark, const At& at) {
    FollowedPath path;
    for (std::int64_t n = 60; n <= 140; ++n) path.places.push_back({n, at(static_cast<double>(n)), 0.3});
    for (const std::int64_t end : {60, 140}) {
        r.first().points[{end, landmark}] = {{at(static_cast<double>(end)), 2}, ""};
        path.from.push_back({end, at(static_cast<double>(end)), 2});
    }
    r.first().paths[landmark] = path;
}

Review thrown() {
    Review r = clicked();
    r.first().points.clear();
    r.first().moments[Moment::HandBreak] = {60, ""};
    r.first().moments[Moment::Load] = {80, ""};
    r.first().moments[Moment::Layback] = {130, ""};
    return r;
}

TEST(Paths, TellTheLaybackAndHowLongTheForearmDwells) {
    Review r = thrown();
    follow(r, L::BackElbow, [](double) { return ImagePoint{600, 300}; });
    // Up at plant, back by 3 degrees a frame to 60 degrees past it at frame 120, then forward by 6.
    const auto degrees = [](double n) { return n <= 120 ? 90 + 3 * (n - 100) : 150 - 6 * (n - 120); };
    follow(r, L::BackWrist, [&](double n) {
        const double a = degrees(n) / 57.29578;
        return ImagePoint{600 + 60 * std::cos(a), 300 - 60 * std::sin(a)};
    });
    const auto events = momentsFromPaths(r.first(), followedClip(), Hand::Right);
    EXPECT_EQ(events.at(Moment::Layback).frame, 120);
    EXPECT_EQ(events.at(Moment::LaybackFrom).frame, 117); // within ten degrees: three frames at 3, one at 6
    EXPECT_EQ(events.at(Moment::LaybackTo).frame, 121);
}

TEST(Paths, TellWhenHipsTurnAndTheTrunkTips) {
    Review r = thrown();
    follow(r, L::BackHip, [](double) { return ImagePoint{600, 400}; });
    follow(r, L::LeadHip, [](double n) { return ImagePoint{600 + std::max(0.0, n - 110) * 4, 400}; });
    follow(r, L::Pelvis, [](double) { return ImagePoint{610, 400}; });
    follow(r, L::Neck, [](double n) {
        const double a = std::max(0.0, n - 125) * 3 / 57.29578;
        return ImagePoint{610 + 120 * std::sin(a), 400 - 120 * std::cos(a)};
    });
    const auto events = momentsFromPaths(r.first(), followedClip(), Hand::Right);
    EXPECT_NEAR(static_cast<double>(events.at(Moment::PelvisTurns).frame), 110, 1);
    EXPECT_NEAR(static_cast<double>(events.at(Moment::TrunkTilts).frame), 125, 1);
    EXPECT_FALSE(events.contains(Moment::TrunkOpens)); // nobody followed the shoulders
}

TEST(Paths, SayWhetherTheHandStallsAndTheElbowStops) {
    Review r = thrown();
    const auto say = [&](const char* id) { return sayingFromPaths(r.first(), followedClip(), id); };
    EXPECT_FALSE(say("hand-stall"));
    follow(r, L::BackWrist, [](double n) { return ImagePoint{500 + 3 * n, 300}; });
    EXPECT_EQ(say("hand-stall")->option, "flows");
    follow(r, L::BackWrist, [](double n) {
        return ImagePoint{500 + 3 * std::min(n, 90.0) + 3 * std::max(0.0, n - 105), 300};
    });
    EXPECT_EQ(say("hand-stall")->option, "stops and turns back");
    follow(r, L::BackWrist, [](double n) {
        return ImagePoint{500 + 3 * n - 2.3 * (std::clamp(n, 90.0, 105.0) - 90), 300};
    });
    const auto slows = say("hand-stall");
    EXPECT_EQ(slows->option, "slows");
    EXPECT_NE(said(slows->why).find("the hand slows to 23 % of its fastest at frame"), std::string::npos)
        << slows->why;
    follow(r, L::BackElbow, [](double n) { return ImagePoint{500 + 4 * std::min(n, 136.0), 300}; });
    EXPECT_EQ(say("elbow-stop")->option, "clear stop");
    follow(r, L::BackElbow, [](double n) { return ImagePoint{500 + 4 * n, 300}; });
    EXPECT_EQ(say("elbow-stop")->option, "none");
    for (const char* id : {"hand-stall", "elbow-stop"}) { // only what the measure lets the coach say
        const auto& options = test::playbook().measure(id)->options;
        EXPECT_NE(std::find(options.begin(), options.end(), say(id)->option), options.end());
    }
    EXPECT_FALSE(say("palm-facing"));
}

TEST(Paths, WhereOneWasLostTheGuideAsks) {
    Review r = clicked();
    FollowedPath lost = handPath(r);
    lost.asks = {131};
    apply(r, {asIs("follow"), {SetPath{L::BackWrist, lost}}, 1});
    r.extras = {"elbow-bend"};
    const auto asksAt = [&] {
        for (const GuideStep& s : openSteps(r, r.first(), test::playbook(), followedClip()))
            if (s.lost) return s.frame;
        return std::int64_t{-1};
    };
    EXPECT_EQ(asksAt(), 131);
    r.first().points[{131, L::BackWrist}] = {{{640, 190}, 2}, ""};
    EXPECT_EQ(asksAt(), -1);
}

TEST(Guess, ComesFromThePathOrFromTheLimb) {
    Review r = clicked();
    apply(r, {asIs("follow"), {SetPath{L::BackWrist, handPath(r)}}, 1});
    const auto path = guessFor(r.first(), L::BackWrist, 130);
    ASSERT_TRUE(path);
    EXPECT_EQ(path->from, GuessFrom::Path);
    EXPECT_EQ(path->at, (ImagePoint{610, 200}));
    // The forearm of frame 100 is carried to frame 103, from the elbow clicked there.
    r.first().points[{100, L::BackElbow}] = {{{560, 230}, 2}, ""};
    r.first().points[{103, L::BackElbow}] = {{{566, 232}, 2}, ""};
    r.first().paths.clear();
    const auto limb = guessFor(r.first(), L::BackWrist, 103);
    ASSERT_TRUE(limb);
    EXPECT_EQ(limb->from, GuessFrom::Limb);
    EXPECT_EQ(limb->at, (ImagePoint{606, 202}));
    EXPECT_GT(limb->sdPx, 0);
    EXPECT_FALSE(guessFor(r.first(), L::BackWrist, 200)); // too far from any frame
    EXPECT_FALSE(guessFor(r.first(), L::LeadKnee, 103));
}

} // namespace
} // namespace jg
