// SPDX-License-Identifier: GPL-3.0-or-later
// The film in the real window: exact frames, playing, suggestions, deliveries, asking for another.
#include "tests/ui/driver.h"

#include "desk/keeping/places.h"
#include "ui/film/film_deck.h"
#include "ui/film/ribbon.h"

#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QThread>
#include <QTimer>

#include <chrono>
#include <random>
#include <set>
#include <thread>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

/// A numbered film of its own in the walk's library.
Submission numberedFilm(Walk& walk, int fps = 60) {
    FilmOrder order = walk.order;
    order.fps = fps;
    order.frameNumbers = true;
    order.seed = 99;
    EXPECT_TRUE(makeFilm(order, walk.folder / "numbered.mp4"));
    auto looked = lookAtFilm(walk.folder / "numbered.mp4");
    const IntakeForm form{walk.athlete.id,
                          {},
                          {{walk.folder / "numbered.mp4", View::Open, static_cast<double>(fps)}},
                          Start::Stretch,
                          Surface::Mound,
                          "",
                          "",
                          test::today()};
    return *takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
}

TEST(Window, SteppingIsExactBothWays) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    const auto shown = [&] {
        const Picture& p = d.review().stage().picture();
        return burnedNumber(p.pixels->data(), p.stride(), p.width);
    };
    for (int i = 0; i < 40; ++i) {
        d.key(i % 3 == 2 ? Qt::Key_Left : Qt::Key_Right);
        d.waitForPicture();
        ASSERT_EQ(shown(), d.review().playhead().frame());
    }
    d.key(Qt::Key_End);
    d.waitForPicture();
    EXPECT_EQ(shown(), submission.clips[0].frames - 1);
    for (int i = 0; i < 20; ++i) {
        d.key(Qt::Key_Left);
        d.waitForPicture();
        ASSERT_EQ(shown(), d.review().playhead().frame());
    }
    // A scrub with the mouse, and play at true speed by the clock.
    d.key(Qt::Key_Home);
    d.key(Qt::Key_Space);
    EXPECT_TRUE(waitFor([&] { return d.review().playhead().frame() >= 30; }, 4000));
    d.key(Qt::Key_Space);
    EXPECT_FALSE(d.review().playhead().playing());
    d.waitForPicture();
    EXPECT_EQ(shown(), d.review().playhead().frame());
}

/// Holds every exact picture shown from now on against its burned-in number, and counts them.
void watchNumbers(Driver& d, int& shown) {
    QObject::connect(d.review().findChild<ui::FilmDeck*>(), &ui::FilmDeck::pictureShown, [&] {
        const ui::StageView& stage = d.review().stage();
        if (!stage.exact()) return;
        const Picture& p = stage.picture();
        EXPECT_EQ(burnedNumber(p.pixels->data(), p.stride(), p.width), stage.shownFrame());
        ++shown;
    });
}

TEST(Window, AHeldKeyAndAFastScrubNeverShowAWrongPicture) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    int seen = 0;
    watchNumbers(d, seen);
    d.key(Qt::Key_End);
    const qint64 last = d.review().playhead().frame();
    for (qint64 i = 0; i < last; ++i) { // as fast as the window takes them, with a rest now and then
        d.key(Qt::Key_Left);
        if (i % 40 == 39) d.waitForExact();
    }
    EXPECT_EQ(d.review().playhead().frame(), 0);
    d.waitForExact();
    std::mt19937 engine(4);
    for (int i = 0; i < 150; ++i) {
        d.review().playhead().jump(engine() % static_cast<unsigned>(last));
        QCoreApplication::processEvents();
        if (i % 50 == 49) d.waitForExact();
    }
    EXPECT_GE(seen, 6); // one a rest, at the least
}

int threadsNow() {
    return static_cast<int>(std::distance(std::filesystem::directory_iterator("/proc/self/task"), {}));
}

/// The window takes every key and every move of the mouse at once, whatever the decoder does meanwhile.
/// How soon it answers is measured by window_bench.
TEST(Window, AnswersWhileTheBackKeyIsHeldAndWhileScrubbing) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk, 240);
    ASSERT_GT(submission.clips[0].frames, 500);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    d.key(Qt::Key_Backspace);
    ASSERT_TRUE(waitFor([&] { return !d.window().reviewPlace(); }));
    // Scrub copies are made beside the desk, with threads of their own.
    ASSERT_TRUE(waitFor(
        [&] {
            return std::filesystem::exists(walk.library->scrubPath(submission.clips[0])) &&
                   std::filesystem::exists(walk.library->scrubPath(walk.submission.clips[0]));
        },
        120000));
    QTest::qWait(300);
    const int threads = threadsNow();
    d.window().openReview(submission.id);
    d.waitForPicture();
    int shown = 0;
    watchNumbers(d, shown);
    d.key(Qt::Key_End);
    d.waitForPicture();
    const qint64 last = d.review().playhead().frame();
    for (int i = 1; i <= 500; ++i) {
        d.key(Qt::Key_Left);
        ASSERT_EQ(d.review().playhead().frame(), last - i);
    }
    d.waitForExact();
    auto* ribbon = d.review().findChild<ui::Ribbon*>();
    std::set<qint64> places;
    QTest::mousePress(ribbon, Qt::LeftButton, {}, {40, 90});
    for (int i = 0; i < 200; ++i) {
        QTest::mouseMove(ribbon, {40 + (i * 37) % (ribbon->width() - 80), 90});
        places.insert(d.review().playhead().frame());
    }
    QTest::mouseRelease(ribbon, Qt::LeftButton, {}, {40, 90});
    EXPECT_GT(places.size(), 100);
    d.waitForExact(); // the near picture is replaced
    EXPECT_GE(shown, 2);
    // Left in the middle of a group: nothing goes on decoding.
    d.review().playhead().jump(last / 2);
    d.key(Qt::Key_Backspace);
    // Qt's painting helpers, one a core, may rest for half a minute; a film at work has FFmpeg's as many, a
    // decoder and a painter beside them.
    const int mayRest = QThread::idealThreadCount();
    EXPECT_TRUE(waitFor([&] { return !d.window().reviewPlace() && threadsNow() <= threads + mayRest; }))
        << threadsNow() << " threads, " << threads << " before";
}

TEST(Window, NoPictureComesToAReviewThatWasLeft) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    int late = 0;
    QObject::connect(d.review().findChild<ui::FilmDeck*>(), &ui::FilmDeck::pictureShown, [&] {
        if (!d.window().reviewPlace()) ++late;
    });
    // The picture is decoded and waits its turn in the window's queue while the coach leaves.
    d.review().playhead().jump(walk.submission.clips[0].frames / 2);
    std::this_thread::sleep_for(std::chrono::seconds(1));
    d.key(Qt::Key_Backspace);
    EXPECT_TRUE(waitFor([&] { return !d.window().reviewPlace(); }));
    QTest::qWait(100);
    EXPECT_EQ(late, 0);
}

TEST(Window, PlaysBackwardAndRoundAndToldByTheFiguresLine) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    auto& head = d.review().playhead();
    d.key(Qt::Key_End);
    const qint64 last = head.frame();
    d.key(Qt::Key_V, Qt::ShiftModifier);
    EXPECT_EQ(head.direction(), -1);
    ASSERT_TRUE(waitFor([&] { return head.frame() < last - 10; }));
    d.key(Qt::Key_V);
    EXPECT_FALSE(head.playing());
    const qint64 touch = *d.delivery().frameOf(Moment::FootTouch),
                 plant = *d.delivery().frameOf(Moment::Plant);
    head.jump(touch);
    d.key(Qt::Key_L);
    ASSERT_TRUE(head.loop());
    EXPECT_EQ(head.loop()->first, touch);
    EXPECT_EQ(head.loop()->second, plant);
    bool inside = true;
    QObject::connect(&head, &ui::Playhead::moved, [&](qint64 f) { inside &= f >= touch && f <= plant; });
    EXPECT_TRUE(waitFor([&] { return head.passed() > 3 * (plant - touch); }));
    EXPECT_TRUE(inside);
    d.key(Qt::Key_L);
    EXPECT_FALSE(head.loop());
    head.pause();
    // Between two frames of one's own, set in either order.
    head.jump(plant + 9);
    d.key(Qt::Key_L, Qt::ShiftModifier);
    d.key(Qt::Key_L, Qt::ShiftModifier);
    EXPECT_FALSE(head.loop()) << "one frame is no round";
    d.key(Qt::Key_L, Qt::ShiftModifier);
    head.jump(touch - 3);
    d.key(Qt::Key_L, Qt::ShiftModifier);
    EXPECT_EQ(head.loop(), (std::pair<qint64, qint64>(touch - 3, plant + 9)));
    EXPECT_TRUE(head.playing());
    d.key(Qt::Key_L);
    head.pause();
    d.key(Qt::Key_I);
    EXPECT_TRUE(d.review().stage().details().contains("MB held"));
    d.key(Qt::Key_I);
    EXPECT_TRUE(d.review().stage().details().isEmpty());
}

TEST(Window, TheSuggestedFrameIsGoneToAndOnlyTakenByEnter) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    ASSERT_FALSE(d.review().session().clip().deliveries.empty());
    d.key(Qt::Key_PageDown);
    d.key(Qt::Key_G);
    EXPECT_TRUE(d.delivery().moments.empty());
    const qint64 frame = d.review().session().clip().deliveries[0].places.at(Moment::Set).frame;
    EXPECT_EQ(d.review().playhead().frame(), frame);
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.delivery().frameOf(Moment::Set), frame);
}

TEST(Window, OneOfTwoDeliveriesIsTakenForTheReviewAndPositionsKeepToIt) {
    Walk walk(Stage::Look);
    FilmOrder order = walk.order;
    order.deliveries = 2;
    ASSERT_TRUE(makeFilm(order, walk.folder / "two.mp4"));
    auto looked = lookAtFilm(walk.folder / "two.mp4");
    ASSERT_TRUE(looked);
    const IntakeForm form{walk.athlete.id,
                          {},
                          {{walk.folder / "two.mp4", View::Open, 60}},
                          Start::Stretch,
                          Surface::Mound,
                          "",
                          "",
                          test::today()};
    const Submission submission = *takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    const auto& found = d.review().session().clip().deliveries;
    ASSERT_EQ(found.size(), 2U);
    EXPECT_FALSE(d.delivery().cut); // offered, not taken
    d.click(d.button(&d.review(), "Review this one"));
    EXPECT_EQ(d.delivery().cut, (FrameSpan{found[0].first, found[0].last}));
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().cut);
    d.key(Qt::Key_End); // the second lies under the playhead there
    d.key(Qt::Key_D);
    ASSERT_EQ(d.delivery().cut, (FrameSpan{found[1].first, found[1].last}));
    d.key(Qt::Key_Home);
    EXPECT_EQ(d.review().playhead().frame(), found[1].first);
    d.key(Qt::Key_Return);
    d.key(Qt::Key_G); // the suggestion is the chosen delivery's
    EXPECT_TRUE(d.delivery().cut->holds(d.review().playhead().frame()));
    d.review().playhead().jump(10);
    d.waitForPicture();
    d.key(Qt::Key_Return);
    EXPECT_TRUE(d.delivery().moments.empty()); // outside the delivery: refused in words
    // The first pitch too: what is marked on the second stays, and N goes round.
    d.stepTo(found[1].places.at(Moment::Set).frame);
    d.waitForPicture();
    d.key(Qt::Key_Return);
    ASSERT_FALSE(d.delivery().moments.empty());
    d.key(Qt::Key_PageUp);
    d.click(d.button(&d.review(), "Review this one too"));
    EXPECT_TRUE(d.delivery().moments.empty());
    EXPECT_EQ(d.delivery().cut, (FrameSpan{found[0].first, found[0].last}));
    EXPECT_EQ(d.review().playhead().frame(), found[0].first);
    EXPECT_TRUE(d.button(&d.review(), "Pitch 1: take in hand"));
    d.key(Qt::Key_N);
    EXPECT_EQ(d.delivery().cut, (FrameSpan{found[1].first, found[1].last}));
    EXPECT_EQ(d.review().playhead().frame(), found[1].places.at(Moment::Set).frame);
}

TEST(Window, AnotherFilmIsAskedForInWordsAndWithADrawing) {
    Walk walk(Stage::Look, Hand::Left);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_R);
    auto* dialog = d.review().findChild<QDialog*>("refilm");
    ASSERT_TRUE(dialog);
    auto* words = dialog->findChild<QPlainTextEdit*>("refilm-text");
    EXPECT_TRUE(words->toPlainText().contains("first-base side")); // the open side of a left-hander
    EXPECT_TRUE(words->toPlainText().contains("120 at least"));
    EXPECT_FALSE(words->toPlainText().contains("some things can't")); // the film check is the coach's
    const auto drawing = [&] { return dialog->findChild<QLabel*>("refilm-drawing")->pixmap().toImage(); };
    const QImage side = drawing();
    dialog->findChild<QComboBox*>("refilm-view")->setCurrentIndex(2);
    EXPECT_TRUE(words->toPlainText().contains("behind a net or a screen"));
    EXPECT_NE(drawing(), side);
    d.click(d.button(dialog, "Copy the text"));
    EXPECT_EQ(QGuiApplication::clipboard()->text(), words->toPlainText());
    dialog->close();
}

} // namespace
} // namespace jg
