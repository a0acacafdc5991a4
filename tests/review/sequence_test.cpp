// SPDX-License-Identifier: GPL-3.0-or-later
// The order of events, with what the frames can and cannot tell.
#include "review/assess/sequence.h"

#include "tests/support/core.h"

namespace jg {
namespace {

Clip at(double fps) {
    Clip c;
    c.captureFps = fps;
    c.frames = 400;
    return c;
}

DeliveryMarks with(std::map<Moment, std::int64_t> frames) {
    DeliveryMarks r;
    for (const auto& [moment, frame] : frames) r.moments[moment] = {frame, ""};
    return r;
}

TEST(Sequence, IsByTimeFromFirstTouchWithHalfAFrameRoundEach) {
    const auto events = sequenceOf(with({{Moment::FootTouch, 100},
                                         {Moment::PelvisTurns, 106},
                                         {Moment::TrunkOpens, 118},
                                         {Moment::Release, 140},
                                         {Moment::LiftTop, 10}}),
                                   at(240), Hand::Right);
    ASSERT_EQ(events.size(), 5U);
    EXPECT_EQ(events[0].moment, Moment::LiftTop);
    EXPECT_EQ(events[1].ms, 0);
    EXPECT_NEAR(events[2].ms, 25, 1e-9);
    EXPECT_NEAR(events[2].halfMs, 1000 / 240.0 / 2, 1e-9);
    EXPECT_EQ(events[2].after, "25 ms after First touch, give or take 4");
    for (const SequenceEvent& e : events) {
        EXPECT_FALSE(e.tooClose);
        EXPECT_FALSE(e.outOfOrder);
    }
}

TEST(Sequence, SaysWhatTheRateCannotTellAndWhichRateCould) {
    const auto events =
        sequenceOf(with({{Moment::FootTouch, 100}, {Moment::PelvisTurns, 101}}), at(60), Hand::Right);
    ASSERT_EQ(events.size(), 2U);
    EXPECT_TRUE(events[1].tooClose);
    EXPECT_EQ(events[1].after, "Too close to First touch to tell which came first: film at 120 a second.");
}

TEST(Sequence, ASureBreachOfTheOrderIsMarkedAndADoubtfulOneIsNot) {
    const auto breach =
        sequenceOf(with({{Moment::FootTouch, 100}, {Moment::PelvisTurns, 130}, {Moment::TrunkOpens, 120}}),
                   at(240), Hand::Right);
    EXPECT_EQ(breach[1].moment, Moment::TrunkOpens);
    EXPECT_TRUE(breach[1].outOfOrder);
    EXPECT_FALSE(breach[2].outOfOrder);
    const auto doubtful =
        sequenceOf(with({{Moment::FootTouch, 100}, {Moment::PelvisTurns, 121}, {Moment::TrunkOpens, 120}}),
                   at(240), Hand::Right);
    for (const SequenceEvent& e : doubtful) EXPECT_FALSE(e.outOfOrder);
}

TEST(Sequence, NeedsFirstTouchAndARate) {
    EXPECT_TRUE(sequenceOf(with({{Moment::Release, 140}}), at(240), Hand::Right).empty());
    EXPECT_TRUE(
        sequenceOf(with({{Moment::FootTouch, 100}, {Moment::Release, 140}}), at(0), Hand::Right).empty());
}

} // namespace
} // namespace jg
