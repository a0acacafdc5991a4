// Paths of a review: what is followed, when a path holds, what it tells, what is guessed.
#include "review/paths.h"

#include "review/edit.h"
#include "review/guess.h"
#include "review/guide.h"
#include "review/review_json.h"
#include "tests/support/fixtures.h"

namespace jg {
namespace {

using L = Landmark;

Clip sideClip() {
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
    r.approach = *test::playbook().approach("load-and-drive");
    r.moments[Moment::Plant] = {100, ""};
    r.moments[Moment::Release] = {140, ""};
    for (const std::int64_t frame : {100, 140}) {
        r.points[{frame, L::BackWrist}] = {{{500.0 + static_cast<double>(frame), 200}, 2}, ""};
        r.points[{frame, L::Ground}] = {{{500, 600}, 2}, ""};
    }
    return r;
}

FollowedPath handPath(const Review& r) {
    FollowedPath path;
    for (const std::int64_t frame : {100, 140})
        path.from.push_back({frame, r.point(frame, L::BackWrist)->point.at, 2});
    for (std::int64_t n = 100; n <= 140; ++n) { // it waits, then goes to the plate
        const double t = static_cast<double>(std::max<std::int64_t>(0, n - 120));
        path.places.push_back({n, {600 + t * t * 0.1, 200}, 0.3});
    }
    return path;
}

TEST(Paths, JointsClickedTwiceAreFollowedAndTheFieldIsNot) {
    const auto stretches = stretchesToFollow(clicked());
    ASSERT_EQ(stretches.size(), 1U);
    EXPECT_EQ(stretches[0].landmark, L::BackWrist);
    EXPECT_EQ(stretches[0].from.frame, 100);
    EXPECT_EQ(stretches[0].to.frame, 140);
    Review hidden = clicked();
    hidden.points[{140, L::BackWrist}].hidden = "behind the body";
    EXPECT_TRUE(stretchesToFollow(hidden).empty());
}

TEST(Paths, HoldWhileTheirPointsStayAndComeBackWithUndo) {
    Review r = clicked();
    apply(r, {"follow", {SetPath{L::BackWrist, handPath(r)}}});
    EXPECT_EQ(pathOf(r, L::BackWrist).size(), 41U);
    EXPECT_EQ(followedLandmarks(r), std::vector<L>{L::BackWrist});
    const auto stored = reviewFromJson(toJson(r));
    ASSERT_TRUE(stored);
    EXPECT_EQ(stored->paths, r.paths);
    const Edit back = apply(r, {"move", {SetPoint{{140, L::BackWrist}, PointMark{{{700, 210}, 2}, ""}}}});
    EXPECT_TRUE(pathOf(r, L::BackWrist).empty());
    apply(r, back);
    EXPECT_EQ(pathOf(r, L::BackWrist).size(), 41U);
}

TEST(Paths, TellWhenTheHandGoesForward) {
    Review r = clicked();
    apply(r, {"follow", {SetPath{L::BackWrist, handPath(r)}}});
    const auto events = momentsFromPaths(r, sideClip(), Hand::Right);
    ASSERT_TRUE(events.contains(Moment::HandForward));
    EXPECT_NEAR(static_cast<double>(events.at(Moment::HandForward).frame), 123, 2);
    // Seen from the other side the same way leads from the plate.
    Clip closed = sideClip();
    closed.view = View::Closed;
    EXPECT_FALSE(momentsFromPaths(r, closed, Hand::Right).contains(Moment::HandForward));
    EXPECT_TRUE(momentsFromPaths(r, closed, Hand::Left).contains(Moment::HandForward));
}

TEST(Paths, WhereOneWasLostTheGuideAsks) {
    Review r = clicked();
    FollowedPath lost = handPath(r);
    lost.asks = {131};
    apply(r, {"follow", {SetPath{L::BackWrist, lost}}});
    r.extras = {"elbow-bend"};
    const auto asksAt = [&] {
        for (const GuideStep& s : openSteps(r, test::playbook(), sideClip()))
            if (s.lost) return s.frame;
        return std::int64_t{-1};
    };
    EXPECT_EQ(asksAt(), 131);
    r.points[{131, L::BackWrist}] = {{{640, 190}, 2}, ""};
    EXPECT_EQ(asksAt(), -1);
}

TEST(Guess, ComesFromThePathOrFromTheLimb) {
    Review r = clicked();
    apply(r, {"follow", {SetPath{L::BackWrist, handPath(r)}}});
    const auto path = guessFor(r, L::BackWrist, 130);
    ASSERT_TRUE(path);
    EXPECT_EQ(path->from, GuessFrom::Path);
    EXPECT_EQ(path->at, (ImagePoint{610, 200}));
    // The forearm of frame 100 is carried to frame 103, from the elbow clicked there.
    r.points[{100, L::BackElbow}] = {{{560, 230}, 2}, ""};
    r.points[{103, L::BackElbow}] = {{{566, 232}, 2}, ""};
    r.paths.clear();
    const auto limb = guessFor(r, L::BackWrist, 103);
    ASSERT_TRUE(limb);
    EXPECT_EQ(limb->from, GuessFrom::Limb);
    EXPECT_EQ(limb->at, (ImagePoint{606, 202}));
    EXPECT_GT(limb->sdPx, 0);
    EXPECT_FALSE(guessFor(r, L::BackWrist, 200)); // too far from any frame
    EXPECT_FALSE(guessFor(r, L::LeadKnee, 103));
}

} // namespace
} // namespace jg
