// SPDX-License-Identifier: GPL-3.0-or-later
// The playhead on its own: times, directions, loops, and what is counted as left out.
#include "ui/film/playhead.h"

#include "film/true_time.h"
#include "review/record/deliveries.h"
#include "tests/ui/driver.h"
#include "ui/film/film_deck.h"
#include "voice/loudspeaker.h"

#include <cmath>

namespace jg {
namespace {

using test::waitFor;
using ui::Playhead;

TEST(Playhead, AnEmptyFilmDoesNotPlay) {
    Playhead head;
    head.play();
    EXPECT_FALSE(head.playing());
    EXPECT_EQ(head.secondsAt(4), 0);
}

TEST(Playhead, PlaysByTheFramesOwnTimes) {
    Playhead head;
    // Three quick pictures, then a long one.
    head.setFilm({0, 0.01, 0.02, 0.03, 5});
    head.play();
    ASSERT_TRUE(waitFor([&] { return head.frame() == 3; }));
    QTest::qWait(60);
    EXPECT_EQ(head.frame(), 3);
    head.pause();
}

TEST(Playhead, DoesNotDrift) {
    Playhead head;
    head.setFilm(10000, 200);
    double now = 40;
    head.setClock([&] { return now; });
    head.play();
    for (const double at :
         {0.1, 0.1049, 7.3, 31.0}) { // a late turn of the event loop leaves frames out, no time
        now = 40 + at;
        const auto frame = static_cast<qint64>(at * 200);
        ASSERT_TRUE(waitFor([&] { return head.frame() == frame; })) << head.frame();
    }
    EXPECT_EQ(head.passed(), head.frame());
    head.pause();
}

TEST(Playhead, BackwardStartsAtTheEndAndStopsAtTheFirst) {
    Playhead head;
    head.setFilm(20, 200);
    head.play(-1);
    EXPECT_EQ(head.frame(), 19);
    ASSERT_TRUE(waitFor([&] { return !head.playing(); }));
    EXPECT_EQ(head.frame(), 0);
}

TEST(Playhead, ALoopOfNothingIsNoLoop) {
    Playhead head;
    head.setFilm(20, 100);
    head.setLoop(std::pair(qint64{5}, qint64{5}));
    EXPECT_FALSE(head.loop());
    head.setLoop(std::pair(qint64{5}, qint64{9}));
    ASSERT_TRUE(head.loop());
    head.play();
    EXPECT_EQ(head.frame(), 5);
    head.setFilm(20, 100); // another film
    EXPECT_FALSE(head.loop());
}

TEST(Playhead, CountsPicturesThatDidNotCome) {
    Playhead head;
    head.setFilm(1000, 200);
    head.play();
    ASSERT_TRUE(waitFor([&] { return head.frame() > 10; }));
    head.shown(head.frame());
    head.shown(head.frame()); // the same one again does not count
    EXPECT_EQ(head.leftOut(), head.passed() - 1);
    head.pause();
}

TEST(Playhead, FollowsTheSoundWhileItIsHeard) {
    Playhead head;
    head.setFilm(1000, 100);
    std::optional<double> heard = 3.005;
    head.setSoundClock([&] { return heard; });
    head.play();
    ASSERT_TRUE(waitFor([&] { return head.frame() == 300; }));
    heard = 4.005;
    ASSERT_TRUE(waitFor([&] { return head.frame() == 400; }));
    head.slower(); // half speed is silent: the clock counts again
    heard = 9;
    QTest::qWait(30);
    EXPECT_LT(head.frame(), 500);
    head.pause();
}

FilmInfo filmOf(int rate, int frames) {
    FilmInfo info;
    info.playRate = {rate, 1};
    info.timeBase = {1, rate};
    for (int n = 0; n < frames; ++n) info.pts.push_back(Pts{n + 7});
    return info;
}

TEST(FilmDeck, TrueSecondsComeFromTheCaptureRate) {
    const FilmInfo slow = filmOf(30, 31);
    EXPECT_DOUBLE_EQ(trueSeconds(slow, 0).back(), 1);         // unknown: as it plays
    EXPECT_DOUBLE_EQ(trueSeconds(slow, 30.1).back(), 1);      // the same within rounding
    EXPECT_DOUBLE_EQ(trueSeconds(slow, 240).back(), 1.0 / 8); // slow motion
    EXPECT_DOUBLE_EQ(trueSeconds(slow, 240).front(), 0);
}

TEST(Loudspeaker, TheStandInKeepsTime) {
    const auto speaker = makeStandInLoudspeaker();
    EXPECT_FALSE(speaker->position());
    speaker->play(std::make_shared<const std::vector<float>>(48000, 0.F), 0.8);
    ASSERT_TRUE(speaker->position());
    EXPECT_GE(*speaker->position(), 0.8);
    EXPECT_TRUE(waitFor([&] { return !speaker->position(); })); // the end
    speaker->play(std::make_shared<const std::vector<float>>(48000, 0.F), 0);
    speaker->stop();
    EXPECT_FALSE(speaker->position());
}

TEST(Loudspeaker, TheRealOnePlaysOrSaysWhyNot) {
    const auto speaker = makeLoudspeaker();
    speaker->play(std::make_shared<const std::vector<float>>(48000, 0.F), 0);
    EXPECT_EQ(speaker->position().has_value(), !speaker->problem().has_value());
    if (speaker->problem()) {
        EXPECT_NE(said(*speaker->problem()).find("no loudspeaker"), std::string::npos);
    }
    speaker->stop();
    EXPECT_FALSE(speaker->position());
}

} // namespace
} // namespace jg
