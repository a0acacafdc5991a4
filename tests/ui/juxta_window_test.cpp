// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet of an athlete's reviews and two of its cells large, worked by keys and mouse.
#include "review/record/joints.h"
#include "tests/ui/driver.h"
#include "ui/kit/words.h"
#include "ui/places/juxta/curve_chart.h"
#include "ui/places/juxta/curve_place.h"
#include "ui/places/juxta/juxta_place.h"
#include "ui/places/juxta/sheet_view.h"

#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

/// A walk with a second review of the same film, a week later.
struct TwoReviews {
    Walk walk{Stage::Judge};
    Review later = walk.review;
    TwoReviews() {
        later.id = {"rev-later"};
        later.revision = 0;
        later.date = addDays(later.date, 7);
        EXPECT_TRUE(walk.library->save(later));
    }
};

/// The sheet of the first athlete, read to the end.
ui::JuxtaPlace* openSheet(Driver& d) {
    d.window().showPlace("athletes");
    d.settle();
    d.key(Qt::Key_J);
    ui::JuxtaPlace* juxta = d.window().juxtaPlace();
    if (!juxta) return nullptr;
    EXPECT_TRUE(waitFor([&] { return juxta->settled() && juxta->sheet().stillsShown() > 0; }, 60000));
    return juxta;
}

ui::PairPlace* openPair(Driver& d, ui::JuxtaPlace& juxta) {
    d.key(Qt::Key_Return);
    ui::PairPlace* pair = juxta.pair();
    if (!pair) return nullptr;
    EXPECT_TRUE(waitFor(
        [&] { return pair->lockstep() && pair->view().side(0).exact && pair->view().side(1).exact; }, 60000));
    return pair;
}

TEST(JuxtaWindow, RowsAndColumnsAreChosenOrderedAndLeftOutByKeys) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    const auto columns = juxta->sheet().sheet().columns.size();
    ASSERT_GT(columns, 2U);
    EXPECT_EQ(juxta->rows().front().review, two.walk.review.id);
    const auto settle = [&] { ASSERT_TRUE(waitFor([&] { return juxta->settled(); }, 60000)); };
    d.key(Qt::Key_Down, Qt::ShiftModifier);
    settle();
    EXPECT_EQ(juxta->rows().front().review, two.later.id);
    EXPECT_EQ(juxta->sheet().sheet().rows.front().entry.key.review, two.later.id);
    EXPECT_EQ(juxta->sheet().chosen().first, 1U); // goes with its row
    const JuxtaAt first = juxta->sheet().sheet().columns.front().at;
    d.key(Qt::Key_Right, Qt::ShiftModifier);
    settle();
    EXPECT_EQ(juxta->sheet().sheet().columns[1].at, first);
    d.key(Qt::Key_X, Qt::ShiftModifier);
    settle();
    EXPECT_EQ(juxta->sheet().sheet().columns.size(), columns - 1);
    d.key(Qt::Key_X); // two must stay
    settle();
    EXPECT_EQ(juxta->rows().size(), 2U);
    EXPECT_EQ(test::cutIn(juxta), "");
    d.key(Qt::Key_Escape);
    EXPECT_FALSE(d.window().juxtaPlace());
}

TEST(JuxtaWindow, AMomentOfAFeatureIsAColumnAndOpensLargeWhereItIs) {
    TwoReviews two;
    // The front knee of the later one is clicked on every frame, most bent at `least`.
    Review review = two.walk.library->review(two.later.id).value();
    DeliveryMarks& marks = review.first();
    const std::int64_t touch = *marks.frameOf(Moment::FootTouch), least = touch + 5;
    for (std::int64_t n = touch; n <= touch + 10; ++n) {
        const double away = static_cast<double>(n - least) * 8;
        marks.points[{n, Landmark::LeadHip}] = {{{400 + std::abs(away), 200}, 0.5}, ""};
        marks.points[{n, Landmark::LeadKnee}] = {{{450, 260}, 0.5}, ""};
        marks.points[{n, Landmark::LeadAnkle}] = {{{400 + std::abs(away), 320}, 0.5}, ""};
    }
    ASSERT_TRUE(two.walk.library->save(review));
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    d.key(Qt::Key_C);
    QDialog* dialog = test::opened(d, "juxta-columns");
    ASSERT_TRUE(dialog);
    for (auto* box : dialog->findChildren<QCheckBox*>()) box->setChecked(box->objectName() == "front-knee");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    const auto& sheet = [&]() -> const JuxtaSheet& { return juxta->sheet().sheet(); };
    ASSERT_TRUE(waitFor([&] { return juxta->settled() && sheet().columns.size() == 1; }, 60000));
    const JuxtaColumn& column = sheet().columns.front();
    EXPECT_EQ(idOf(column.at), "front-knee");
    EXPECT_FALSE(column.cells[0].frame);
    EXPECT_EQ(column.cells[0].why.id, "curve.too-few");
    EXPECT_EQ(column.cells[1].frame, least);
    d.key(Qt::Key_Down);
    ASSERT_EQ(juxta->sheet().chosen(), (CellKey{1, 0}));
    ui::PairPlace* pair = openPair(d, *juxta);
    ASSERT_TRUE(pair);
    EXPECT_EQ(pair->lockstep()->lock(1), touch);
    EXPECT_TRUE(waitFor([&] { return pair->lockstep()->frame(1) == least; }, 10000))
        << pair->lockstep()->frame(1);
}

// Front knee against elbow: any two features on one chart, each with a scale of its own.
TEST(JuxtaWindow, TwoFeaturesStandOnOneChart) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    d.key(Qt::Key_F);
    ASSERT_TRUE(waitFor([&] { return juxta->curves() != nullptr; }));
    ui::CurvePlace& place = *juxta->curves();
    auto* chart = place.findChild<ui::CurveChart*>();
    ASSERT_TRUE(chart);
    EXPECT_EQ(place.feature(), Feature::FrontKnee);
    EXPECT_FALSE(place.second());
    const QString alone = chart->spokenValue();
    const auto count = allFeatures().size();
    std::set<std::string_view> seconds;
    for (std::size_t i = 1; i < count; ++i) {
        d.key(Qt::Key_G);
        ASSERT_TRUE(place.second());
        EXPECT_NE(*place.second(), place.feature());
        seconds.insert(idOf(*place.second()));
        EXPECT_TRUE(chart->accessibleName().contains(ui::say(nameOf(*place.second()))));
        EXPECT_TRUE(chart->spokenValue().contains(ui::say(nameOf(*place.second()))));
        EXPECT_EQ(test::cutIn(&place), "") << idOf(*place.second());
    }
    EXPECT_EQ(seconds.size(), count - 1);
    d.key(Qt::Key_G); // round: the first alone again
    EXPECT_FALSE(place.second());
    EXPECT_EQ(chart->spokenValue(), alone);
    d.key(Qt::Key_G, Qt::ShiftModifier);
    EXPECT_EQ(place.second(), allFeatures().back());
    d.key(Qt::Key_F, Qt::ShiftModifier); // to that one as the first: no feature stands beside itself
    EXPECT_EQ(place.feature(), allFeatures().back());
    EXPECT_FALSE(place.second());
}

TEST(JuxtaWindow, TheDeliveriesAreOfferedWithThoseOfTheSheetTicked) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    const auto rows = juxta->rows();
    d.key(Qt::Key_A);
    ASSERT_TRUE(waitFor([&] { return d.window().findChild<QDialog*>("juxta-rows") != nullptr; }));
    QDialog* dialog = test::opened(d, "juxta-rows");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return juxta->settled(); }, 60000));
    EXPECT_EQ(juxta->rows(), rows);
}

TEST(JuxtaWindow, ANamedDeliveryIsKeptWithTheAthlete) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    d.key(Qt::Key_B);
    QDialog* dialog = test::opened(d, "juxta-name");
    ASSERT_TRUE(dialog);
    d.type(dialog->findChild<QLineEdit*>("baseline-name"), "before the injury");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return juxta->settled(); }, 60000));
    EXPECT_EQ(juxta->sheet().sheet().rows.front().entry.baseline, "before the injury");
    const auto athlete = d.window().library().athlete(two.walk.athlete.id);
    ASSERT_TRUE(athlete);
    ASSERT_EQ(athlete->baselines.size(), 1U);
    EXPECT_EQ(athlete->baselines.front().review, two.walk.review.id);
}

TEST(JuxtaWindow, TwoGoTogetherAndAMovedMarkChangesTheDifference) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    ui::PairPlace* pair = openPair(d, *juxta);
    ASSERT_TRUE(pair);
    const auto exact = [&] {
        return waitFor([&] {
            for (const std::size_t s : {0U, 1U})
                if (!pair->view().side(s).exact || pair->view().side(s).frame != pair->lockstep()->frame(s))
                    return false;
            return true;
        });
    };
    // Locked at first touch, stepped on and back.
    d.key(Qt::Key_L);
    QDialog* lock = test::opened(d, "pair-lock");
    ASSERT_TRUE(lock);
    const auto& marks = pair->entry(0).marks;
    const int touch =
        1 + static_cast<int>(std::count_if(marks.moments.begin(), marks.moments.end(), [](const auto& m) {
            return isKeyPosition(m.first) && m.second.frame && m.first < Moment::FootTouch;
        }));
    QTest::keyClick(lock, static_cast<Qt::Key>(Qt::Key_0 + touch));
    ASSERT_TRUE(waitFor([&] { return pair->lockstep()->frame(0) == *marks.frameOf(Moment::FootTouch); }));
    for (int i = 0; i < 3; ++i) d.key(Qt::Key_Right);
    EXPECT_EQ(pair->lockstep()->frame(0), *marks.frameOf(Moment::FootTouch) + 3);
    EXPECT_EQ(pair->lockstep()->frame(1), *marks.frameOf(Moment::FootTouch) + 3);
    ASSERT_TRUE(exact());
    // To a position with a clicked knee, which is dragged on the lower film only.
    while (pair->lockstep()->frame(1) != *marks.frameOf(Moment::Release)) {
        const double was = pair->lockstep()->ms();
        d.key(Qt::Key_Period);
        ASSERT_NE(pair->lockstep()->ms(), was);
    }
    ASSERT_TRUE(exact());
    const std::int64_t frame = pair->view().side(1).frame;
    const auto joints = jointsOn(pair->entry(1).marks, frame);
    ASSERT_TRUE(joints.contains(Landmark::LeadKnee));
    const auto knee = [&](std::size_t side) {
        return *figureAngleAt(pair->entry(side), test::playbook(), Moment::Release, figureAngles()[0]).value;
    };
    EXPECT_NEAR(knee(0), knee(1), 1e-9);
    const QPoint at = pair->view().toView(1, joints.at(Landmark::LeadKnee)).toPoint();
    QTest::mousePress(&pair->view(), Qt::LeftButton, {}, at);
    QTest::mouseMove(&pair->view(), at + QPoint(12, 0));
    QTest::mouseRelease(&pair->view(), Qt::LeftButton, {}, at + QPoint(12, 0));
    EXPECT_GT(std::abs(knee(0) - knee(1)), 1);
    // By the keeper of any review: it is on the disk a moment later.
    EXPECT_TRUE(waitFor([&] {
        const auto kept = d.window().library().review(two.later.id);
        return kept->first().point(frame, Landmark::LeadKnee)->point.at.x != joints.at(Landmark::LeadKnee).x;
    }));
    const auto other = d.window().library().review(two.walk.review.id);
    EXPECT_EQ(other->first().point(frame, Landmark::LeadKnee)->point.at.x, joints.at(Landmark::LeadKnee).x);
    // The point that was held goes on by half a pixel, by keys.
    const auto kneeX = [&] { return jointsOn(pair->entry(1).marks, frame).at(Landmark::LeadKnee).x; };
    const double held = kneeX();
    d.key(Qt::Key_Right, Qt::ShiftModifier);
    EXPECT_NEAR(kneeX(), held + 0.5, 1e-9);
    d.key(Qt::Key_Left, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_NEAR(kneeX(), held - 9.5, 1e-9);
    for (int i = 0; i < 3; ++i) d.key(Qt::Key_Z);
    EXPECT_NEAR(knee(0), knee(1), 1e-9);
}

TEST(JuxtaWindow, OneIsUnlockedAndNudgedAndEveryLookIsShown) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    ui::PairPlace* pair = openPair(d, *juxta);
    ASSERT_TRUE(pair);
    const std::int64_t before = pair->lockstep()->frame(0);
    const QString when = juxta->findChild<QLabel*>("pair-when")->text();
    d.key(Qt::Key_U);
    d.key(Qt::Key_Right);
    EXPECT_NE(juxta->findChild<QLabel*>("pair-when")->text(), when); // the two no longer come there at once
    EXPECT_EQ(pair->lockstep()->frame(0), before + 1);
    EXPECT_EQ(pair->lockstep()->frame(1), before);
    d.key(Qt::Key_U);
    d.key(Qt::Key_U);
    d.key(Qt::Key_Right);
    EXPECT_EQ(pair->lockstep()->frame(0), before + 2);
    EXPECT_EQ(pair->lockstep()->frame(1), before + 1);
    d.key(Qt::Key_W);
    EXPECT_EQ(pair->view().look(), ui::PairLook::Over);
    d.key(Qt::Key_Up);
    EXPECT_NEAR(pair->view().fade(), 0.6, 1e-9);
    d.key(Qt::Key_W);
    EXPECT_EQ(pair->view().look(), ui::PairLook::Figures);
    EXPECT_EQ(test::cutIn(juxta), "");
    d.key(Qt::Key_V);
    const double from = pair->lockstep()->ms();
    EXPECT_TRUE(waitFor([&] { return pair->lockstep()->ms() > from + 50 || !pair->playing(); }));
    d.key(Qt::Key_V);
    EXPECT_FALSE(pair->playing());
    d.key(Qt::Key_Escape);
    EXPECT_FALSE(juxta->pair());
    EXPECT_TRUE(d.window().juxtaPlace());
}

TEST(JuxtaWindow, WhatIsNotAlikeIsComparedByTheCoachsWordOnRecord) {
    TwoReviews two;
    Review other = *two.walk.library->review(two.later.id);
    other.first().conditions.start =
        two.walk.review.first().conditions.start == Start::Stretch ? Start::WindUp : Start::Stretch;
    ASSERT_TRUE(two.walk.library->save(other));
    Driver d(two.walk.library->folder());
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    d.key(Qt::Key_Down);
    d.key(Qt::Key_Down);
    const JuxtaChange* change = juxta->sheet().chosenChange();
    ASSERT_TRUE(change);
    EXPECT_FALSE(change->trend);
    EXPECT_EQ(change->notComparable.id, "juxta.thrown-otherwise");
    const std::string measure = change->measure;
    d.key(Qt::Key_O);
    QDialog* dialog = test::opened(d, "juxta-overrule");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(dialog->isVisible()); // not without a reason
    d.type(dialog->findChild<QLineEdit*>("overrule-why"), "The start does not touch the landing.");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return juxta->settled() && juxta->sheet().sheet().compared() == 1; }, 60000));
    const auto athlete = d.window().library().athlete(two.walk.athlete.id);
    ASSERT_EQ(athlete->overruled.size(), 1U);
    EXPECT_EQ(athlete->overruled.front().measure, measure);
    EXPECT_EQ(athlete->overruled.front().why, "The start does not touch the landing.");
}

TEST(JuxtaWindow, EveryKeyOfTheTableIsKnownWhereItWorks) {
    TwoReviews two;
    Driver d(two.walk.library->folder());
    const auto check = [&](unsigned where) {
        for (const ui::ActionRow& row : ui::actionTable())
            if (row.where & where) {
                EXPECT_TRUE(d.window().knows(row.id)) << row.id.toStdString();
            }
    };
    ui::JuxtaPlace* juxta = openSheet(d);
    ASSERT_TRUE(juxta);
    check(ui::AtJuxta);
    ASSERT_TRUE(openPair(d, *juxta));
    check(ui::AtPair);
}

TEST(JuxtaWindow, OneReviewAloneIsSaidSo) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    EXPECT_FALSE(d.window().findChild<QPushButton*>("juxta-open"));
    d.key(Qt::Key_J);
    EXPECT_FALSE(d.window().juxtaPlace());
}

} // namespace
} // namespace jg
