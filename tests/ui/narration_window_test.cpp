// SPDX-License-Identifier: GPL-3.0-or-later
// Saying a stop: drawing, looking closer, playing, several takes, silence left out; all by keys and mouse.
#include "letter/qt_text.h"
#include "review/tell/take_cuts.h"
#include "tests/ui/driver.h"
#include "ui/film/stage_view.h"
#include "ui/stages/say/narration.h"
#include "ui/stages/say/pen_row.h"
#include "ui/stages/say/say_bench.h"
#include "voice/audio_file.h"

#include <QDialog>
#include <QLabel>
#include <QPointer>
#include <QPushButton>

namespace jg {
namespace {

using test::Driver;
using test::opened;
using test::waitFor;
using test::Walk;

/// A walk at its first stop, about to be said.
struct ToSay {
    explicit ToSay(double speed = 4)
        : d(walk.library->folder(), speed) {
        d.window().openReview(walk.submission.id);
        while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
        d.review().findChild<ui::RowList*>("stops")->setCurrent(0);
        d.settle();
        d.waitForExact();
    }
    Walk walk{Stage::Send};
    Driver d;

    const Stop& stop() { return d.document().stops.front(); }
    const Take& take() { return d.document().takes.at(stop().id); }
    std::size_t spares() {
        const auto it = d.document().spareTakes.find(stop().id);
        return it == d.document().spareTakes.end() ? 0 : it->second.size();
    }
    std::string foot() { return d.review().findChild<ui::Foot*>()->sentence().toStdString(); }
    std::vector<TakeEvent> of(TakeEventKind kind) {
        std::vector<TakeEvent> found;
        for (const TakeEvent& e : take().events)
            if (e.kind == kind) found.push_back(e);
        return found;
    }
    /// A joint that is clicked on the stop's frame.
    std::pair<Landmark, ImagePoint> joint() {
        for (const auto& [key, mark] : d.delivery().points)
            if (key.frame == stop().frame && mark.hidden.empty()) return {key.landmark, mark.point.at};
        return {};
    }
};

TEST(NarrationWindow, ShapesSnapToJointsAndAreTakenBackAndWiped) {
    ToSay w;
    auto* pens = w.d.review().findChild<ui::PenRow*>("pens");
    ASSERT_TRUE(pens);
    EXPECT_FALSE(pens->isVisible());
    w.d.key(Qt::Key_R);
    EXPECT_TRUE(pens->isVisible());
    const auto [landmark, at] = w.joint();
    w.d.key(Qt::Key_3);
    w.d.dragPicture({at.x + 3, at.y - 2}, {at.x + 90, at.y - 60});
    w.d.key(Qt::Key_D);
    w.d.key(Qt::Key_4);
    w.d.dragPicture({at.x + 60, at.y}, {at.x + 80, at.y});
    const std::string before = ui::say(w.d.review().session().history().undoLabel()).toStdString();
    w.d.key(Qt::Key_Z); // the ring, not the review's last edit
    EXPECT_EQ(ui::say(w.d.review().session().history().undoLabel()).toStdString(), before);
    w.d.key(Qt::Key_G);
    w.d.key(Qt::Key_Escape);
    const auto begun = w.of(TakeEventKind::StrokeBegin);
    ASSERT_EQ(begun.size(), 2U);
    EXPECT_EQ(begun[0].pen, Pen::Arrow);
    EXPECT_EQ(begun[0].joint, landmark);
    EXPECT_EQ(begun[0].at, at); // on the joint, not beside it
    EXPECT_FALSE(begun[0].fades);
    EXPECT_EQ(begun[1].pen, Pen::Ring);
    EXPECT_TRUE(begun[1].fades);
    EXPECT_EQ(w.of(TakeEventKind::StrokeDrop).size(), 1U);
    EXPECT_EQ(w.of(TakeEventKind::GoalOff).size(), 1U);
    const StageState last = stateAt(w.stop(), w.take(), w.take().samples, w.d.delivery());
    EXPECT_FALSE(last.goal);
    ASSERT_EQ(last.drawn.size(), 1U);
}

TEST(NarrationWindow, LooksCloserAndPlaysAndTheFilmDoesTheSameWhenListenedTo) {
    ToSay w;
    auto* stage = w.d.review().findChild<ui::StageView*>("stage");
    w.d.key(Qt::Key_R);
    w.d.key(Qt::Key_K);
    ASSERT_TRUE(stage->seen());
    const QRectF seen = *stage->seen();
    const auto [landmark, at] = w.joint();
    EXPECT_TRUE(seen.contains(QPointF(at.x, at.y)));
    w.d.key(Qt::Key_B); // half speed
    w.d.key(Qt::Key_V);
    QTest::qWait(300);
    w.d.key(Qt::Key_V);
    w.d.key(Qt::Key_Escape);
    const auto views = w.of(TakeEventKind::View);
    ASSERT_EQ(views.size(), 1U);
    EXPECT_NEAR(views[0].at.x, seen.left(), 0.5);
    EXPECT_NEAR(views[0].to.y, seen.bottom(), 0.5);
    const auto frames = w.of(TakeEventKind::Frame);
    ASSERT_GT(frames.size(), 3U);
    for (std::size_t i = 2; i < frames.size(); ++i) EXPECT_GE(frames[i].frame, frames[i - 1].frame);
    // Heard again, the stage goes the same way, and stands as it was at the end.
    w.d.key(Qt::Key_O);
    EXPECT_FALSE(stage->seen());
    w.d.key(Qt::Key_P);
    EXPECT_TRUE(waitFor([&] { return stage->seen().has_value(); }));
    w.d.key(Qt::Key_P);
    EXPECT_FALSE(stage->seen());
}

TEST(NarrationWindow, WhatFadesGoesAlsoWhenTheNextOneStays) {
    ToSay w;
    auto* stage = w.d.review().findChild<ui::StageView*>("stage");
    const auto seen = [&] {
        QCoreApplication::processEvents();
        return stage->grab(QRect(0, stage->height() / 2, stage->width(), stage->height() / 2 - 40)).toImage();
    };
    w.d.key(Qt::Key_R);
    const QImage before = seen();
    w.d.key(Qt::Key_2);
    w.d.key(Qt::Key_D);
    const Clip& clip = w.walk.submission.clips[0];
    w.d.dragPicture({0.05 * clip.width, 0.9 * clip.height}, {0.2 * clip.width, 0.7 * clip.height});
    w.d.key(Qt::Key_D);
    EXPECT_NE(seen(), before);
    EXPECT_TRUE(waitFor([&] { return seen() == before; }, 6000)); // four times as fast as it is told
    w.d.key(Qt::Key_Escape);
}

TEST(NarrationWindow, WipingBetweenTakesChangesNothing) {
    ToSay w;
    auto* stage = w.d.review().findChild<ui::StageView*>("stage");
    w.d.key(Qt::Key_Down); // to a stop with a number
    w.d.waitForExact();
    EXPECT_FALSE(stage->scene().labels.empty());
    w.d.key(Qt::Key_M);
    ASSERT_TRUE(stage->scene().labels.empty());
    w.d.key(Qt::Key_C);
    EXPECT_TRUE(stage->scene().labels.empty());
}

TEST(NarrationWindow, EveryTakeIsKeptAndOneKeyTakesAnother) {
    ToSay w;
    const std::string first = w.take().file;
    w.d.key(Qt::Key_U);
    EXPECT_NE(w.foot().find("one take"), std::string::npos) << w.foot();
    const auto sayAgain = [&] {
        w.d.key(Qt::Key_R);
        QTest::qWait(200);
        w.d.key(Qt::Key_Escape);
    };
    sayAgain();
    const std::string second = w.take().file;
    EXPECT_NE(second, first);
    EXPECT_EQ(w.spares(), 1U);
    w.d.key(Qt::Key_U);
    QDialog* dialog = opened(w.d, "takes");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_2);
    w.d.settle();
    EXPECT_EQ(w.take().file, first);
    EXPECT_EQ(w.d.document().spareTakes.at(w.stop().id).at(0).file, second);
    w.d.key(Qt::Key_Z); // as any edit
    EXPECT_EQ(w.take().file, second);
    w.d.key(Qt::Key_U);
    dialog = opened(w.d, "takes");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_3); // throw away all but the one in the film
    w.d.settle();
    EXPECT_EQ(w.spares(), 0U);
    EXPECT_EQ(w.take().file, second);
    EXPECT_TRUE(std::filesystem::exists(w.d.window().library().takePath(first))); // Z brings it back
    w.d.key(Qt::Key_Z);
    EXPECT_EQ(w.spares(), 1U);
}

TEST(NarrationWindow, TakesAreHeardBesideEachOtherBeforeOneIsTaken) {
    ToSay w;
    const std::string first = w.take().file;
    w.d.key(Qt::Key_R);
    QTest::qWait(300);
    w.d.key(Qt::Key_Escape);
    const std::string second = w.take().file;
    w.d.key(Qt::Key_U);
    QDialog* dialog = opened(w.d, "takes");
    ASSERT_TRUE(dialog);
    auto* narration = dynamic_cast<ui::Narration*>(w.d.review().findChild<ui::SayBench*>()->tool());
    ASSERT_TRUE(narration);
    const auto words = [&](int n) {
        return dialog->findChild<QPushButton*>(QString("hear-%1").arg(n))->text().toStdString();
    };
    QTest::keyClick(dialog, Qt::Key_Down);
    QTest::keyClick(dialog, Qt::Key_P);
    EXPECT_TRUE(waitFor([&] { return narration->heardAt().value_or(0) > 0; }));
    EXPECT_EQ(words(1), "Hear it");
    EXPECT_EQ(words(2), "Stop");
    QTest::keyClick(dialog, Qt::Key_Up); // the other at once, without ending this one first
    QTest::keyClick(dialog, Qt::Key_P);
    EXPECT_TRUE(narration->listening());
    EXPECT_EQ(words(1), "Stop");
    EXPECT_EQ(words(2), "Hear it");
    QTest::keyClick(dialog, Qt::Key_P);
    EXPECT_FALSE(narration->listening());
    EXPECT_EQ(words(1), "Hear it");
    w.d.click(dialog->findChild<QPushButton*>("hear-2"));
    EXPECT_TRUE(narration->listening());
    QTest::keyClick(dialog, Qt::Key_Escape); // nothing is taken, and it is silent
    EXPECT_TRUE(waitFor([&] { return !narration->listening(); }));
    EXPECT_EQ(w.take().file, second);
    w.d.key(Qt::Key_U);
    dialog = opened(w.d, "takes");
    ASSERT_TRUE(dialog);
    std::filesystem::remove(w.d.window().library().takePath(first));
    QTest::keyClick(dialog, Qt::Key_Down);
    QTest::keyClick(dialog, Qt::Key_P);
    EXPECT_FALSE(dialog->findChild<QLabel*>("takes-problem")->text().isEmpty());
    QTest::keyClick(dialog, Qt::Key_Escape);
}

TEST(NarrationWindow, TheWindowMayCloseWhileATakeIsHeard) {
    std::optional<ToSay> w(std::in_place);
    w->d.key(Qt::Key_R);
    QTest::qWait(300);
    w->d.key(Qt::Key_Escape);
    w->d.key(Qt::Key_U);
    const QPointer<QDialog> dialog = opened(w->d, "takes");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_P);
    EXPECT_EQ(dialog->findChild<QPushButton*>("hear-1")->text(), "Stop");
    w.reset();
    EXPECT_FALSE(dialog);
}

TEST(NarrationWindow, SilenceIsLeftOutByOneKeyAndPutBack) {
    ToSay w;
    // A voice with three seconds of silence on each side, and two more in it.
    auto sound = readSound(w.d.window().library().takePath(w.take().file));
    ASSERT_TRUE(sound);
    std::vector<std::int16_t> samples(3 * kSampleRate, 0);
    const auto half = sound->begin() + std::ssize(*sound) / 2;
    const auto add = [&](auto from, auto to) {
        std::transform(from, to, std::back_inserter(samples),
                       [](float v) { return static_cast<std::int16_t>(v * 32000); });
    };
    add(sound->begin(), half);
    samples.insert(samples.end(), 3 * kSampleRate, 0);
    add(half, sound->end());
    samples.insert(samples.end(), 3 * kSampleRate, 0);
    Take take = w.take();
    take.file = "with-silence.wav";
    take.events.resize(1);
    auto writer = WavWriter::open(w.d.window().library().takePath(take.file));
    ASSERT_TRUE(writer && writer->write(samples) && writer->finish());
    take.samples = writer->samples();
    ASSERT_TRUE(w.d.review().session().perform({asIs("Test"), {SetTake{w.stop().id, take}}, 1}));
    const double whole = w.take().seconds();
    w.d.key(Qt::Key_S);
    const double ends = w.take().seconds();
    EXPECT_NEAR(whole - ends, 5.25, 0.6);
    EXPECT_NE(w.foot().find("ends is left out"), std::string::npos) << w.foot();
    w.d.key(Qt::Key_S);
    EXPECT_LT(w.take().seconds(), ends - 1.8);
    w.d.key(Qt::Key_S);
    EXPECT_EQ(w.take().seconds(), whole);
    w.d.key(Qt::Key_Z);
    EXPECT_LT(w.take().seconds(), ends - 1.8);
}

} // namespace
} // namespace jg
