// SPDX-License-Identifier: GPL-3.0-or-later
// Prescribing in the real window: the proposal, why not yet, drills, days, promises, and the gates of pain,
// return from injury and age, with what the letter says then.
#include "kinematics/answers.h"
#include "review/tell/plan_rules.h"
#include "tests/ui/driver.h"
#include "ui/kit/row_list.h"
#include "ui/stages/prescribe/cause_map.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

namespace jg::test {
namespace {

void toPrescribe(Driver& d, const Walk& walk) {
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Prescribe) d.key(Qt::Key_PageUp);
}

/// As if nothing had been prescribed yet.
void planBlank(Walk& walk) {
    Review r = *walk.library->review(walk.review.id);
    r.plan = {};
    ASSERT_TRUE(walk.library->save(r));
}

/// Fills a form that a key opens, and keeps it.
void inForm(Driver& d, int key, const char* name, const std::function<void(QDialog&)>& fill) {
    d.key(key);
    QDialog* dialog = opened(d, name);
    ASSERT_TRUE(dialog) << d.review().foot().sentence().toStdString();
    fill(*dialog);
    // A form is kept by Ctrl+Enter, other dialogs by their own button.
    if (dialog->findChild<QLabel*>("form-problem"))
        QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    else
        QTest::keyClick(dialog, Qt::Key_Return);
    EXPECT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); })) << name;
}

std::string letterOf(Driver& d) {
    const LetterModel m = d.review().session().letter();
    std::string all;
    for (const Message& caution : m.cautions) all += said(caution) + "\n";
    for (const LetterCorrection& c : m.corrections) all += said(c.title) + " " + said(c.need) + "\n";
    for (const LetterWeekRow& row : m.week) all += said(row.what) + "\n";
    return all;
}

TEST(Prescribe, AProposalIsTakenByOneKeyAndUndoneByAnother) {
    Walk walk;
    planBlank(walk);
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    EXPECT_TRUE(d.document().plan.corrections.empty());
    auto* map = d.review().findChild<ui::CauseMap*>();
    ASSERT_TRUE(map && map->isVisible()); // causes stand in the middle
    const auto& session = d.review().session();
    const auto faults = session.told().faults();
    EXPECT_EQ(map->findChildren<QAbstractButton*>().size(), static_cast<qsizetype>(faults.size()));
    d.key(Qt::Key_P);
    const Plan plan = d.document().plan;
    EXPECT_FALSE(plan.corrections.empty());
    EXPECT_FALSE(plan.keeps.empty());
    for (const std::string& id : plan.corrections)
        EXPECT_TRUE(std::any_of(plan.drills.begin(), plan.drills.end(), [&](const PlannedDrill& p) {
            return p.finding == id;
        })) << id;
    d.key(Qt::Key_Z);
    EXPECT_TRUE(d.document().plan.corrections.empty());
    d.key(Qt::Key_W);
    EXPECT_FALSE(map->isVisible());
    EXPECT_TRUE(d.review().findChild<QWidget*>("week-view")->isVisible());
    d.key(Qt::Key_X);
    EXPECT_TRUE(d.review().stage().isVisible());
}

TEST(Prescribe, HowBigItIsIsSaidInOneKeyAndStandsInTheLetter) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    ASSERT_FALSE(d.document().plan.corrections.empty());
    d.key(Qt::Key_G);
    QDialog* dialog = opened(d, "size");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_3);
    ASSERT_TRUE(waitFor([&] { return d.document().plan.sizes.size() == 1; }));
    EXPECT_EQ(d.document().plan.sizes.begin()->second, FindingSize::Growth);
    const std::string finding = d.document().plan.sizes.begin()->first;
    for (const LetterCorrection& c : d.review().session().letter().corrections)
        if (c.finding == finding) {
            EXPECT_NE(said(c.size).find("getting stronger"), std::string::npos);
        }
}

TEST(Prescribe, AStyleLeavesTheCorrectionsWithItsDrillsAndIsNotTakenUp) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    const auto before = d.document().plan.corrections;
    ASSERT_FALSE(before.empty());
    auto* list = d.review().findChild<ui::RowList*>("faults");
    const auto asStyle = [&] {
        d.key(Qt::Key_G);
        QDialog* dialog = opened(d, "size");
        EXPECT_TRUE(dialog);
        if (dialog) QTest::keyClick(dialog, Qt::Key_5);
        EXPECT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>("size"); }));
    };
    // Of those that are worked on, one that does not protect the arm.
    const Assessment& told = d.review().session().told();
    const auto free = std::find_if(before.begin(), before.end(), [&](const std::string& id) {
        return told.judged(id) && told.judged(id)->finding.verdict != Verdict::Protect;
    });
    ASSERT_NE(free, before.end());
    const std::string id = *free;
    const QString title = QString::fromStdString(goalOf(test::playbook(), told, id));
    const auto rowOf = [&] {
        int row = 0;
        while (list->rows().at(static_cast<std::size_t>(row)).title != title) ++row;
        return row;
    };
    list->setCurrent(rowOf());
    asStyle();
    EXPECT_FALSE(isAmong(d.document().plan.corrections, id));
    EXPECT_TRUE(isStyle(d.document().plan, told, id));
    for (const PlannedDrill& drill : d.document().plan.drills) EXPECT_NE(drill.finding, id);
    list->setCurrent(rowOf());
    EXPECT_EQ(list->rows().at(static_cast<std::size_t>(list->current())).right, "their style");
    d.key(Qt::Key_Return);
    EXPECT_FALSE(isAmong(d.document().plan.corrections, id)) << "a style is not taken up by Enter";
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.document().plan.corrections, before);
}

TEST(Prescribe, ACorrectionThatHasBecomeGoodIsInTheListAndCanBeTakenOut) {
    Walk walk;
    Review r = *walk.library->review(walk.review.id);
    const Assessment told = assess(r, walk.book, walk.submission.clips, walk.athlete.hand);
    const auto good =
        std::find_if(told.findings.begin(), told.findings.end(), [](const Judged& j) { return j.strength; });
    ASSERT_NE(good, told.findings.end());
    r.plan.corrections = {good->finding.id};
    ASSERT_TRUE(walk.library->save(r));
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    auto* list = d.review().findChild<ui::RowList*>("faults");
    ASSERT_TRUE(list);
    const auto rows = list->rows();
    const auto at = std::find_if(rows.begin(), rows.end(),
                                 [](const ui::ListRow& row) { return row.sub.contains("good by now"); });
    ASSERT_NE(at, rows.end());
    list->setCurrent(static_cast<int>(at - rows.begin()));
    d.key(Qt::Key_Return);
    EXPECT_TRUE(waitFor([&] { return d.document().plan.corrections.empty(); }));
}

TEST(Prescribe, ShowsNoWindowBesideTheReviews) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    for (QWidget* w : QApplication::topLevelWidgets())
        EXPECT_TRUE(w == &d.window() || !w->isVisible()) << w->metaObject()->className();
}

TEST(Prescribe, AClickOnACardTakesItsFindingInHand) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    auto* list = d.review().findChild<ui::RowList*>("faults");
    auto* map = d.review().findChild<ui::CauseMap*>();
    ASSERT_GE(list->rows().size(), 2U);
    const std::string last =
        causesOf(playbook(), d.review().session().told(), d.document().plan).order.back();
    auto* card = map->findChild<QAbstractButton*>(QString::fromStdString("cause-" + last));
    ASSERT_TRUE(card);
    card->click();
    EXPECT_EQ(list->current(), static_cast<int>(list->rows().size()) - 1);
}

TEST(Prescribe, WhatIsMissingDecidesOnTheDrillAndTheLetterSaysSo) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    d.key(Qt::Key_P);
    const auto& told = d.review().session().told();
    const std::string id = causesOf(playbook(), told, d.document().plan).order.front();
    if (!std::count(d.document().plan.corrections.begin(), d.document().plan.corrections.end(), id))
        d.key(Qt::Key_Return);
    inForm(d, Qt::Key_Y, "ask-why-not", [](QDialog& dialog) {
        auto* placed = dialog.findChild<QComboBox*>("screen-placed");
        ASSERT_TRUE(placed);
        placed->setCurrentIndex(2); // the body stops before the position
    });
    const WhyNot* whyNot = d.document().plan.whyNotOf(id);
    ASSERT_TRUE(whyNot);
    EXPECT_EQ(needOf(playbook(), *whyNot), Need::Reach);
    bool reaches = false;
    for (const PlannedDrill& p : d.document().plan.drills)
        if (p.finding == id) {
            const auto& needs = playbook().drill(p.drill)->needs;
            reaches = reaches || std::count(needs.begin(), needs.end(), "reach");
        }
    EXPECT_TRUE(reaches);
    EXPECT_NE(letterOf(d).find("does not reach the position"), std::string::npos);
}

TEST(Prescribe, DrillsAreAddedTakenOutAndHaveTheirDays) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    d.key(Qt::Key_P);
    const std::string id = causesOf(playbook(), d.review().session().told(), d.document().plan).order.front();
    const std::size_t before = d.document().plan.drills.size();
    std::string added;
    inForm(d, Qt::Key_D, "choose-drills", [&](QDialog& dialog) {
        for (QCheckBox* box : dialog.findChildren<QCheckBox*>())
            if (!box->isChecked() && box->isEnabled()) {
                box->setChecked(true);
                added = box->objectName().mid(6).toStdString();
                break;
            }
    });
    ASSERT_FALSE(added.empty());
    EXPECT_EQ(d.document().plan.drills.size(), before + 1);
    for (QPushButton* b : d.review().findChildren<QPushButton*>("link"))
        if (b->accessibleName().startsWith("Take out") &&
            b->accessibleName().contains(QString::fromStdString(playbook().drill(added)->name))) {
            b->click();
            break;
        }
    EXPECT_EQ(d.document().plan.drills.size(), before);
    inForm(d, Qt::Key_T, "ask-week", [](QDialog& dialog) {
        for (int day : {0, 1, 2, 3, 4})
            dialog.findChild<QCheckBox*>("free-" + QString::number(day))->setChecked(false);
    });
    EXPECT_EQ(d.document().plan.circumstances.days, 0x60U); // Saturday and Sunday
    for (const LetterWeekRow& row : d.review().session().letter().week)
        for (const int day : row.weekdays) EXPECT_GE(day, 5) << said(row.what);
}

TEST(Prescribe, ALinkThatIsRefusedFreesItsConsequence) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    const auto report = [&] { return causesOf(playbook(), d.review().session().told(), d.document().plan); };
    const CauseReport was = report();
    const auto link = std::find_if(was.links.begin(), was.links.end(),
                                   [](const CauseLink& l) { return l.through.empty(); });
    ASSERT_NE(link, was.links.end()) << "the made review has no link to refuse";
    const auto at = std::find(was.order.begin(), was.order.end(), link->to);
    auto* list = d.review().findChild<ui::RowList*>("faults");
    list->setCurrent(static_cast<int>(at - was.order.begin()));
    inForm(d, Qt::Key_K, "ask-causes", [&](QDialog& dialog) {
        auto* box = dialog.findChild<QComboBox*>(QString::fromStdString("stance-" + link->from));
        ASSERT_TRUE(box);
        box->setCurrentIndex(2);
    });
    for (const CauseLink& l : report().links)
        EXPECT_FALSE(l.from == link->from && l.to == link->to && l.through.empty());
}

TEST(Prescribe, APromiseStandsOnTheDeskUntilItIsKept) {
    Walk walk;
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    inForm(d, Qt::Key_M, "ask-promise", [](QDialog& dialog) {
        dialog.findChild<QLineEdit*>("promise-what")->setText("A picture of the mound");
        dialog.findChild<QLineEdit*>("promise-when")->setText("2026-11-27");
    });
    ASSERT_EQ(d.window().library().openPromises(addDays(today(), 400))->size(), 1U);
    d.key(Qt::Key_Backspace);
    d.settle();
    QPushButton* kept = nullptr;
    for (QPushButton* b : d.window().findChildren<QPushButton*>("link"))
        if (b->isVisible() && b->accessibleName() == "Kept: A picture of the mound") kept = b;
    ASSERT_TRUE(kept);
    d.click(kept);
    d.settle();
    EXPECT_TRUE(d.window().library().openPromises(addDays(today(), 400))->empty());
    EXPECT_EQ(d.window().library().promises()->at(0).kept, Kept::Kept);
}

TEST(Prescribe, InPainNothingThatIsAThrowCanBeChosen) {
    Walk walk(Stage::Send, Hand::Right, 13, "Elbow sore since Sunday.");
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    d.key(Qt::Key_P);
    for (const PlannedDrill& p : d.document().plan.drills)
        EXPECT_FALSE(playbook().drill(p.drill)->throwing) << p.drill;
    inForm(d, Qt::Key_D, "choose-drills", [](QDialog& dialog) {
        for (QCheckBox* box : dialog.findChildren<QCheckBox*>()) {
            const Drill* drill = playbook().drill(box->objectName().mid(6).toStdString());
            EXPECT_EQ(box->isEnabled(), !drill || !drill->throwing) << box->text().toStdString();
        }
    });
    const std::string letter = letterOf(d);
    EXPECT_EQ(letter.find("You told me that something hurts"), 0U); // it opens the letter
}

TEST(Prescribe, ComingBackFromAnInjuryWaitsForTheCliniciansPlan) {
    Walk walk;
    walk.athlete.comingBack = ComingBack{"elbow, in June", std::nullopt};
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Send);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(d.window().library().outbox()->empty());
    bool tells = false;
    for (QLabel* l : d.review().findChildren<QLabel*>())
        tells = tells || (l->isVisible() && l->text().contains("note the day on the athlete's page"));
    EXPECT_TRUE(tells);
    // The door it names: the athlete's page, Edit, and the day.
    d.key(Qt::Key_Backspace);
    d.window().showPlace("athletes");
    d.settle();
    inForm(d, Qt::Key_E, "athlete-dialog", [](QDialog& dialog) {
        EXPECT_EQ(dialog.findChild<QLineEdit*>("coming-back")->text(), "elbow, in June");
        dialog.findChild<QLineEdit*>("plan-seen")->setText("24 November 2026");
    });
    d.settle();
    EXPECT_TRUE(d.window().library().athlete(walk.athlete.id)->comingBack->planSeen);
    d.window().openReview(walk.submission.id);
    EXPECT_EQ(letterOf(d).find("You are on your way back"), 0U);
    for (QLabel* l : d.review().findChildren<QLabel*>())
        EXPECT_FALSE(l->isVisible() && l->text().contains("note the day on the athlete's page"));
}

TEST(Prescribe, AChildOfTenGetsTwoAndIsTold) {
    Walk walk(Stage::Send, Hand::Right, 10);
    planBlank(walk);
    Driver d(walk.library->folder());
    toPrescribe(d, walk);
    auto* list = d.review().findChild<ui::RowList*>("faults");
    ASSERT_GE(list->rows().size(), 3U);
    for (int i = 0; i < 3; ++i) {
        d.key(Qt::Key_Return);
        d.key(Qt::Key_Down);
    }
    EXPECT_EQ(d.document().plan.corrections.size(), 2U);
    EXPECT_TRUE(d.review().foot().sentence().contains("plenty at this age"))
        << d.review().foot().sentence().toStdString();
    for (const PlannedDrill& p : d.document().plan.drills) EXPECT_LE(playbook().drill(p.drill)->ageFrom, 10);
}

} // namespace
} // namespace jg::test
