// SPDX-License-Identifier: GPL-3.0-or-later
// Measuring in the real window: points, answers, the catalogue, the goal.
#include "desk/own/usual_measures.h"
#include "tests/ui/driver.h"

#include "ui/kit/row_list.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(Window, ADraggedPointMovesEveryNumberAndUndoBringsThemBack) {
    Walk walk(Stage::Judge, Hand::Left);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto plant = *d.delivery().frameOf(Moment::Plant);
    d.stepTo(plant);
    const auto values = [&] {
        std::map<std::string, double> v;
        for (const MeasureRow& m : d.review().session().assessment().measures)
            if (m.value.value) v[m.id] = *m.value.value;
        return v;
    };
    const auto before = values();
    const ImagePoint ankle = d.delivery().point(plant, Landmark::LeadAnkle)->point.at;
    d.dragPicture(ankle, {ankle.x - 14, ankle.y - 3});
    const auto after = values();
    for (const char* id : {"leg-spread", "front-knee-plant", "stride", "front-knee-change"})
        EXPECT_GT(std::abs(after.at(id) - before.at(id)), 0.2) << id;
    EXPECT_EQ(after.at("elbow-bend"), before.at("elbow-bend"));
    d.key(Qt::Key_Z); // one drag, one step
    EXPECT_EQ(values(), before);
    d.key(Qt::Key_Left, Qt::ShiftModifier); // a nudge of half a pixel
    const ImagePoint nudged = d.delivery().point(plant, Landmark::LeadAnkle)->point.at;
    EXPECT_NEAR(nudged.x, ankle.x - 0.5, 1e-9);
}

/// Places every point asked for where it truly is; returns the clicks.
int clickAllPoints(Driver& d, const FilmOrder& order) {
    const Delivery delivery(order.knobs);
    int clicks = 0;
    for (; clicks < 300; ++clicks) {
        auto* bench = qobject_cast<ui::MeasureBench*>(d.review().bench());
        if (!bench || !bench->step()) break;
        const GuideStep step = *bench->step();
        if (step.frame != d.review().playhead().frame()) d.key(Qt::Key_Return);
        d.waitForPicture();
        const Pose pose = delivery.poseAt(delivery.startS() + static_cast<double>(step.frame) / order.fps);
        d.clickPicture(projectJoints(order, pose).at(step.landmark));
    }
    return clicks;
}

std::map<std::string, double> numbersOf(Driver& d) {
    std::map<std::string, double> numbers;
    for (const MeasureRow& m : d.review().session().assessment().measures)
        if (m.value.value) numbers[m.id] = *m.value.value;
    return numbers;
}

TEST(Window, FortyNumbersComeFromTheCatalogueByKeysAndClicks) {
    Walk walk(Stage::Positions);
    {
        auto session = walk.session(); // the positions stay, the points are all to be clicked
        std::vector<Change> clear;
        for (const auto& [key, mark] : walk.review.first().points)
            clear.push_back(SetPoint{key, std::nullopt});
        ASSERT_TRUE(session->perform(asIs("clear"), clear));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    d.key(Qt::Key_A);
    auto* picker = d.window().findChild<QDialog*>("measure-picker");
    ASSERT_TRUE(picker);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(picker));
    // What the approach sets can't be taken away; what this side can't show can't be taken.
    EXPECT_FALSE(picker->findChild<QCheckBox*>("back-knee")->isEnabled());
    EXPECT_FALSE(picker->findChild<QCheckBox*>("trunk-side")->isEnabled());
    d.click(d.button(picker, "All this view shows"));
    d.click(d.button(picker, "Take these"));
    ASSERT_TRUE(waitFor([&] { return !d.document().extras.empty(); }));
    d.window().activateWindow();
    ASSERT_TRUE(d.delivery().points.empty());
    const int clicks = clickAllPoints(d, walk.order);
    const auto before = numbersOf(d);
    EXPECT_GE(before.size(), 40U);
    RecordProperty("numbers", static_cast<int>(before.size()));
    RecordProperty("clicks", clicks);
    // One shared point: the back ankle at plant.
    const std::int64_t plant = *d.delivery().frameOf(Moment::Plant);
    d.stepTo(plant);
    const ImagePoint at = d.delivery().point(plant, Landmark::BackAnkle)->point.at;
    d.dragPicture(at, {at.x - 14, at.y});
    const auto after = numbersOf(d);
    for (const char* id : {"leg-spread", "stride", "back-leg-lean", "stretch-angle"})
        EXPECT_NE(after.at(id), before.at(id)) << id;
    EXPECT_EQ(after.at("trunk-forward"), before.at("trunk-forward"));
    d.key(Qt::Key_Z);
    EXPECT_EQ(numbersOf(d), before);
}

TEST(Window, WhatWasTickedTogetherIsUntickedTogetherAndTheUsualOnesAreKept) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageUp);
    const auto open = [&] {
        d.window().activateWindow();
        d.key(Qt::Key_A);
        return test::opened(d, "measure-picker");
    };
    auto* picker = open();
    ASSERT_TRUE(picker);
    EXPECT_FALSE(d.button(picker, "My usual ones")->isEnabled());
    const auto counted = [&] { return picker->findChild<QLabel*>("count")->text(); };
    d.click(d.button(picker, "All this view shows"));
    EXPECT_FALSE(counted().contains(" 0 ticked"));
    d.click(d.button(picker, "All of them"));
    EXPECT_TRUE(counted().contains(" 0 ticked")) << counted().toStdString();
    EXPECT_TRUE(picker->findChild<QCheckBox*>("back-knee")->isChecked()); // the approach's own stays
    picker->findChild<QCheckBox*>("spin")->click();
    picker->findChild<QCheckBox*>("delivery-time")->click();
    d.click(d.button(picker, "Keep as my usual ones"));
    EXPECT_EQ(usualMeasures(*walk.library).size(), 2U);
    d.click(d.button(picker, "Take these"));
    ASSERT_TRUE(waitFor([&] { return d.document().extras.size() == 2; }));
    // The positions of one are set, the other waits for a number: only that one goes.
    ASSERT_TRUE(d.review().session().assessment().measure("delivery-time")->value.value);
    picker = open();
    d.click(d.button(picker, "Those without a number"));
    d.click(d.button(picker, "Take these"));
    ASSERT_TRUE(waitFor([&] { return d.document().extras.size() == 1; }));
    EXPECT_EQ(d.document().extras.front(), "delivery-time");
    picker = open();
    d.click(d.button(picker, "My usual ones"));
    d.click(d.button(picker, "Take these"));
    EXPECT_TRUE(waitFor([&] { return d.document().extras.size() == 2; }));
}

TEST(Window, EnterInMeasureGoesToARowThatWaitsForAnAnswer) {
    Walk walk(Stage::Judge);
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform(asIs("take"), {SetExtras{{"landing-part", "spin"}}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageUp);
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto chosen = [&] {
        const auto& rows = d.review().session().assessment().measures;
        const int row = list->current();
        return row < 0 ? std::string() : rows.at(static_cast<std::size_t>(row)).id;
    };
    std::set<std::string> seen;
    for (int i = 0; i < 4; ++i) {
        d.key(Qt::Key_Return);
        seen.insert(chosen());
    }
    EXPECT_TRUE(seen.contains("landing-part")) << testing::PrintToString(seen);
    EXPECT_TRUE(seen.contains("spin")) << testing::PrintToString(seen);
}

TEST(Window, AQuestionHasNoAnswerBeforeTheCoachGivesOne) {
    Walk walk(Stage::Judge);
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform(asIs("take"), {SetExtras{{"landing-part"}}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_Return);
    d.key(Qt::Key_U);
    QDialog* question = test::opened(d, "seen");
    ASSERT_TRUE(question);
    const auto answered = [&] { return d.delivery().answers.contains("landing-part"); };
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
    EXPECT_TRUE(question->isVisible());
    EXPECT_FALSE(answered());
    QTest::keyClick(question, Qt::Key_1);
    EXPECT_TRUE(waitFor(answered));
}

TEST(Window, AMeasureWithoutPointsIsAnsweredByItsKey) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform(asIs("take"), {SetExtras{{"landing-part", "spin"}}}));
    }
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    const auto row = [&](const std::string& id) { return *d.review().session().assessment().measure(id); };
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto count = static_cast<int>(d.review().session().assessment().measures.size());
    list->setCurrent(count - 2);
    d.key(Qt::Key_Home);
    d.key(Qt::Key_U);
    auto* choice = d.window().findChild<QDialog*>("seen");
    ASSERT_TRUE(choice);
    const Moment judgedAt = d.review().session().playbook().measure("landing-part")->moments.back();
    EXPECT_EQ(d.review().playhead().frame(), d.delivery().frameOf(judgedAt)); // where it is to be seen
    QTest::keyClick(choice, Qt::Key_2);
    ASSERT_TRUE(waitFor([&] { return row("landing-part").value.words == asIs("heel"); }));
    d.window().activateWindow();
    list->setCurrent(count - 1);
    const std::int64_t release = *d.delivery().frameOf(Moment::Release);
    d.stepTo(release + 4);
    d.key(Qt::Key_U);
    EXPECT_FALSE(d.delivery().frameOf(Moment::BallAway)); // nothing is recorded by the key that only opens
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_PageDown);
    list->setCurrent(count - 1);
    d.stepTo(release + 4);
    d.key(Qt::Key_U);
    EXPECT_FALSE(d.delivery().frameOf(Moment::BallAway)); // what was opened before leaving is opened anew
    d.key(Qt::Key_U);
    EXPECT_EQ(d.delivery().frameOf(Moment::BallAway), release + 4);
    d.key(Qt::Key_U);
    auto* number = d.window().findChild<QDialog*>("number");
    ASSERT_TRUE(number);
    QTest::keyClicks(number->findChild<QLineEdit*>(), "1.5");
    QTest::keyClick(number->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return row("spin").value.value.has_value(); }));
    EXPECT_NEAR(*row("spin").value.value, 60 * 60 * 1.5 / 4, 1e-9);
    d.window().activateWindow();
    d.key(Qt::Key_Z);
    EXPECT_FALSE(row("spin").value.value);
}

TEST(Window, BackspaceTakesTheChosenPointAndNeverLeavesWithIt) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const std::int64_t plant = *d.delivery().frameOf(Moment::Plant);
    d.stepTo(plant);
    const ImagePoint at = d.delivery().point(plant, Landmark::LeadAnkle)->point.at;
    d.dragPicture(at, {at.x + 3, at.y});
    ASSERT_TRUE(d.delivery().point(plant, Landmark::LeadAnkle));
    d.key(Qt::Key_Backspace);
    ASSERT_TRUE(d.window().reviewPlace()) << "it left the review";
    EXPECT_FALSE(d.delivery().point(plant, Landmark::LeadAnkle));
    d.key(Qt::Key_Backspace); // nothing is chosen any more
    EXPECT_TRUE(waitFor([&] { return d.window().reviewPlace() == nullptr; }));
}

TEST(Window, TheKeySheetOpensAtTheStageInHand) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.window().resize(1024, 640);
    d.key(Qt::Key_F1);
    QDialog* sheet = test::opened(d, "shortcuts");
    ASSERT_TRUE(sheet);
    const auto* here = sheet->findChild<QLabel*>("keys-here");
    ASSERT_TRUE(here);
    EXPECT_EQ(here->text(), ui::say("stage.judge"));
    EXPECT_FALSE(here->visibleRegion().isEmpty());
    EXPECT_EQ(test::cutIn(sheet), "");
    sheet->close();
}

TEST(Window, TheGoalOfTheChosenMeasureIsDrawnAndFollowsADraggedPoint) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto& rows = d.review().session().assessment().measures;
    const auto spread =
        std::find_if(rows.begin(), rows.end(), [](const MeasureRow& r) { return r.id == "leg-spread"; }) -
        rows.begin();
    const std::int64_t plant = *d.delivery().frameOf(Moment::Plant);
    // Short of the target whatever the film shows: the lead ankle is drawn back.
    d.stepTo(plant);
    const ImagePoint at = d.delivery().point(plant, Landmark::LeadAnkle)->point.at,
                     back = d.delivery().point(plant, Landmark::BackAnkle)->point.at;
    const ImagePoint nearer{at.x + (back.x - at.x) * 0.3, at.y};
    d.dragPicture(at, nearer);
    list->setCurrent(0);
    list->move(static_cast<int>(spread));
    ASSERT_TRUE(waitFor([&] { return d.review().stage().scene().ghost.has_value(); }));
    const auto before = *d.review().stage().scene().ghost;
    EXPECT_EQ(before.label.text, "106\u00b0");
    d.dragPicture(nearer, {nearer.x, nearer.y - 6});
    ASSERT_TRUE(d.review().stage().scene().ghost.has_value());
    EXPECT_NE(d.review().stage().scene().ghost->joints, before.joints);
    d.key(Qt::Key_G);
    EXPECT_FALSE(d.review().stage().scene().ghost.has_value());
    d.key(Qt::Key_G);
    EXPECT_TRUE(d.review().stage().scene().ghost.has_value());
    d.stepTo(plant + 1); // it belongs to its own frame
    EXPECT_FALSE(d.review().stage().scene().ghost.has_value());
}

// The goal set by hand: by mouse and by keys, taken back, and shown in letter and film as the coach's own.
TEST(Window, AGoalIsDraggedToWhereTheCoachWantsIt) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_D);
    EXPECT_TRUE(d.delivery().goals.empty()); // no measure is chosen: it is said
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto& rows = d.review().session().assessment().measures;
    const auto spread =
        std::find_if(rows.begin(), rows.end(), [](const MeasureRow& r) { return r.id == "leg-spread"; }) -
        rows.begin();
    list->setCurrent(0);
    list->move(static_cast<int>(spread));
    const std::int64_t plant = *d.delivery().frameOf(Moment::Plant);
    const auto clicks = d.delivery().points;
    d.key(Qt::Key_D);
    d.stepTo(plant);
    // It starts from the reckoned goal where there is one.
    const auto& session = d.review().session();
    const auto reckoned =
        ghostOf(d.delivery(), session.playbook(), *session.assessment().measure("leg-spread"), session.clip(),
                session.athlete().hand);
    const ImagePoint clicked = d.delivery().point(plant, Landmark::LeadAnkle)->point.at;
    const ImagePoint at = reckoned ? reckoned->pose.at(Landmark::LeadAnkle) : clicked;
    d.dragPicture(at, {at.x, at.y - 12});
    ASSERT_TRUE(d.delivery().goals.contains("leg-spread"));
    const HandGoal goal = d.delivery().goals.at("leg-spread");
    EXPECT_EQ(goal.frame, plant);
    EXPECT_NEAR(goal.joints.at(Landmark::LeadAnkle).y, at.y - 12, 2);
    EXPECT_EQ(d.delivery().points, clicks); // the clicked joints stay where they are
    d.key(Qt::Key_Z);                       // a drag is one step
    EXPECT_TRUE(d.delivery().goals.empty());
    d.key(Qt::Key_C); // by keys: the next joint, and the arrows
    d.key(Qt::Key_Up, Qt::ShiftModifier);
    ASSERT_TRUE(d.delivery().goals.contains("leg-spread"));
    d.key(Qt::Key_Escape);
    ASSERT_TRUE(waitFor([&] { return d.review().stage().scene().ghost.has_value(); }));
    EXPECT_EQ(d.review().stage().scene().ghost->label.text, "where I want you");
    d.dragPicture(clicked, {clicked.x + 9, clicked.y}); // a clicked joint is dragged again
    EXPECT_NE(d.delivery().points, clicks);
    d.key(Qt::Key_D);
    d.key(Qt::Key_Delete);
    EXPECT_TRUE(d.delivery().goals.empty());
}

TEST(Window, AMeasureOfTheCoachsOwnJoinsTheWalkAndStays) {
    Walk walk(Stage::Judge);
    const auto rowOf = [](Driver& d, const std::string& id) {
        return d.review().session().assessment().measure(id);
    };
    {
        Driver d(walk.library->folder());
        d.window().openReview(walk.submission.id);
        d.key(Qt::Key_PageUp);
        d.key(Qt::Key_A);
        auto* picker = d.window().findChild<QDialog*>("measure-picker");
        ASSERT_TRUE(picker);
        ASSERT_TRUE(QTest::qWaitForWindowExposed(picker));
        d.click(d.button(picker, "A measure of your own \u2026"));
        auto* dialog = d.window().findChild<QDialog*>("own-measure");
        ASSERT_TRUE(dialog);
        ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
        const auto choose = [&](const char* box, int index, const QString& value) {
            auto* combo = dialog->findChildren<QComboBox*>(box).at(index);
            combo->setCurrentText(value);
        };
        choose("kind", 0, "Tilt of a line");
        choose("point", 0, "back ankle");
        choose("point", 1, "back ankle");
        choose("position", 0, "Plant");
        QTest::keyClicks(dialog->findChild<QLineEdit*>("name"), "Back shin");
        d.click(d.button(dialog, "Keep this measure"));
        EXPECT_TRUE(dialog->findChild<QLabel*>("wrong")->text().contains("twice")); // and nothing was kept
        EXPECT_TRUE(d.document().extras.empty());
        choose("point", 1, "pelvis");
        d.click(d.button(dialog, "Keep this measure"));
        ASSERT_TRUE(waitFor([&] { return !d.document().extras.empty(); }));
        ASSERT_TRUE(rowOf(d, "own-back-shin"));
        EXPECT_TRUE(rowOf(d, "own-back-shin")->value.value); // both points are clicked for others already
    }
    Driver again(walk.library->folder());
    again.window().openReview(walk.submission.id);
    ASSERT_TRUE(rowOf(again, "own-back-shin"));
    EXPECT_TRUE(rowOf(again, "own-back-shin")->value.value);
}

} // namespace
} // namespace jg
