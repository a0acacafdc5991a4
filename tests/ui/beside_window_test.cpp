// SPDX-License-Identifier: GPL-3.0-or-later
// An earlier delivery beside a stop, by keys: chosen in Say, or taken over from two large ones.
#include "tests/ui/driver.h"
#include "ui/film/stage_view.h"
#include "ui/places/juxta/juxta_place.h"
#include "ui/places/juxta/sheet_view.h"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

/// A walk with an earlier review of the same film, plant set two frames sooner.
struct WithEarlier {
    Walk walk{Stage::Send};
    Review earlier = test::keepEarlier(walk, "earlier", 7, [](Review& r) {
        r.first().moments[Moment::Plant].frame = *r.first().frameOf(Moment::Plant) - 2;
    });
};

TEST(BesideWindow, AStopShowsTheEarlierDeliveryAndBothStepTogether) {
    WithEarlier w;
    Driver d(w.walk.library->folder());
    d.window().openReview(w.walk.submission.id);
    const auto toSay = [&] {
        while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    };
    toSay();
    d.waitForPicture();
    auto* list = d.review().findChild<ui::RowList*>("stops");
    list->setCurrent(0);
    auto* other = d.review().findChild<ui::StageView*>("other-stage");
    ASSERT_TRUE(other);
    EXPECT_FALSE(other->isVisible());
    d.key(Qt::Key_J);
    QDialog* dialog = test::opened(d, "stop-beside");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_1);
    ASSERT_TRUE(waitFor([&] { return other->isVisible() && other->exact(); }, 30000));
    const Stop stop = d.document().stops.front();
    ASSERT_TRUE(stop.beside);
    EXPECT_EQ(stop.beside->review, w.earlier.id);
    // Locked two frames apart, and so they go on: both films run at one rate.
    const std::int64_t apart = stop.beside->with - stop.beside->frame;
    const auto goTo = [&](std::int64_t frame) {
        d.stepTo(frame);
        EXPECT_TRUE(waitFor([&] { return other->shownFrame() == frame - apart; }, 30000))
            << other->shownFrame() << " beside " << frame;
    };
    goTo(stop.beside->with);
    goTo(stop.beside->with + 4);
    goTo(stop.beside->with - 3);
    EXPECT_TRUE(other->spokenValue().contains(ui::say(day(w.earlier.date, DateStyle::Day))))
        << other->spokenValue().toStdString();
    // A take holds the review's frames; the other film's follow from them.
    d.key(Qt::Key_R);
    d.key(Qt::Key_Right);
    d.key(Qt::Key_Escape);
    EXPECT_TRUE(d.document().takes.contains(stop.id));
    // Elsewhere the picture stands alone again.
    d.key(Qt::Key_PageDown);
    EXPECT_FALSE(other->isVisible());
    toSay();
    list->setCurrent(0);
    d.key(Qt::Key_J);
    dialog = test::opened(d, "stop-beside");
    ASSERT_TRUE(dialog);
    for (auto* button : dialog->findChildren<QPushButton*>())
        if (button->text().contains("stands alone")) d.click(button);
    EXPECT_FALSE(d.document().stops.front().beside);
    EXPECT_FALSE(other->isVisible());
}

TEST(BesideWindow, OfManyEarlierOnesEachIsFoundByTyping) {
    Walk walk{Stage::Send};
    std::vector<Review> earlier;
    for (int i = 0; i < 13; ++i)
        earlier.push_back(test::keepEarlier(walk, "earlier-" + std::to_string(i), 7 * (i + 1)));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.waitForPicture();
    d.review().findChild<ui::RowList*>("stops")->setCurrent(0);
    d.key(Qt::Key_J);
    QDialog* dialog = test::opened(d, "stop-beside");
    ASSERT_TRUE(dialog);
    auto* rows = dialog->findChild<ui::RowList*>("found-rows");
    ASSERT_TRUE(rows);
    ASSERT_EQ(rows->rows().size(), 13U);
    const Review& wanted = earlier[11];
    const QString date = ui::say(day(wanted.date, DateStyle::Year));
    auto* find = dialog->findChild<QLineEdit*>("found-line");
    ASSERT_TRUE(find);
    EXPECT_TRUE(find->hasFocus());
    QTest::keyClicks(find, date);
    EXPECT_EQ(rows->rows().size(), 1U) << date.toStdString();
    QTest::keyClick(find, Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return d.document().stops.front().beside.has_value(); }, 30000));
    EXPECT_EQ(d.document().stops.front().beside->review, wanted.id);
    // Another one by a click, as by Enter.
    d.key(Qt::Key_J);
    dialog = test::opened(d, "stop-beside");
    ASSERT_TRUE(dialog);
    rows = dialog->findChild<ui::RowList*>("found-rows");
    ASSERT_TRUE(rows);
    QTest::mouseClick(rows->viewport(), Qt::LeftButton, {}, rows->rowRect(2).center());
    ASSERT_TRUE(waitFor(
        [&] {
            return d.document().stops.front().beside &&
                   d.document().stops.front().beside->review != wanted.id;
        },
        30000));
}

TEST(BesideWindow, TwoLargeOnesGoIntoTheRunningOrderOfTheLaterReview) {
    WithEarlier w;
    Driver d(w.walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    d.key(Qt::Key_J);
    ui::JuxtaPlace* juxta = d.window().juxtaPlace();
    ASSERT_TRUE(juxta);
    ASSERT_TRUE(waitFor([&] { return juxta->settled() && juxta->sheet().stillsShown() > 0; }, 60000));
    d.key(Qt::Key_Return);
    ui::PairPlace* pair = juxta->pair();
    ASSERT_TRUE(pair);
    ASSERT_TRUE(waitFor([&] { return pair->lockstep() != nullptr; }, 60000));
    const auto before = d.window().library().review(w.walk.review.id)->stops.size();
    d.key(Qt::Key_S);
    EXPECT_TRUE(waitFor([&] { // by the keeper of any review: on the disk a moment later
        return d.window().library().review(w.walk.review.id)->stops.size() == before + 1;
    }));
    const auto review = d.window().library().review(w.walk.review.id);
    ASSERT_EQ(review->stops.size(), before + 1);
    const auto stop = std::find_if(review->stops.begin(), review->stops.end(),
                                   [](const Stop& s) { return s.beside.has_value(); });
    ASSERT_NE(stop, review->stops.end());
    EXPECT_EQ(stop->beside->review, w.earlier.id);
    EXPECT_EQ(stop->beside->frame, pair->lockstep()->lock(0));
    EXPECT_EQ(stop->beside->with, pair->lockstep()->lock(1));
    EXPECT_EQ(d.window().library().review(w.earlier.id)->stops.size(), w.earlier.stops.size());
}

} // namespace
} // namespace jg
