// SPDX-License-Identifier: GPL-3.0-or-later
// Judging in the real window: a whole card by keys, approaches, verdicts by hand, findings of one's own, the
// second person's view, and the playbook a coach owns.
#include "desk/own/own_approaches.h"
#include "desk/own/own_playbook.h"
#include "tests/ui/driver.h"
#include "ui/kit/row_list.h"
#include "ui/places/playbook/playbook_place.h"
#include "ui/places/review/line_bar.h"
#include "ui/stages/judge/card_reader.h"
#include "ui/stages/judge/judge_bench.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPointer>
#include <QSpinBox>

#include <fstream>
#include <map>

namespace jg::test {
namespace {

void answer(Driver& d, const char* name, const QString& words) {
    QDialog* dialog = opened(d, name);
    ASSERT_TRUE(dialog);
    auto* line = dialog->findChild<QLineEdit*>();
    ASSERT_TRUE(line) << name;
    QTest::keyClicks(line, words);
    QTest::keyClick(line, Qt::Key_Return);
    EXPECT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>(name); }));
}

void choose(Driver& d, const char* name, int option) {
    QDialog* dialog = opened(d, name);
    ASSERT_TRUE(dialog);
    if (auto* many = dialog->findChild<ui::RowList*>("found-rows")) {
        ASSERT_GT(static_cast<int>(many->rows().size()), option) << name;
        many->scrollTo(many->model()->index(option, 0));
        QTest::mouseClick(many->viewport(), Qt::LeftButton, {}, many->rowRect(option).center());
    } else {
        const auto buttons = dialog->findChildren<QPushButton*>();
        ASSERT_GT(buttons.size(), option) << name;
        d.click(buttons[option]);
    }
    EXPECT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>(name); }));
}

/// Chooses a row of the card.
void selectRow(Driver& d, const std::string& id) {
    auto* list = d.review().findChild<ui::RowList*>("items");
    const auto card =
        cardOf(d.document(), d.review().session().playbook(), d.review().session().assessment());
    for (std::size_t i = 0; i < card.size(); ++i)
        if (card[i].id == id) {
            list->setCurrent(static_cast<int>(i));
            Q_EMIT list->selected(static_cast<int>(i));
            return;
        }
    FAIL() << id << " is not on the card";
}

int optionOf(const Playbook& book, const std::string& id) {
    for (std::size_t i = 0; i < book.approaches.size(); ++i)
        if (book.approaches[i].id == id) return static_cast<int>(i);
    return -1;
}

/// A review at its card, in the window.
class JudgeWindow : public testing::Test {
protected:
    JudgeWindow() {
        d.window().openReview(walk.submission.id);
        d.waitForPicture();
    }
    Walk walk{Stage::Judge};
    Driver d{walk.library->folder()};
};

TEST(JudgeCard, IsGradedInAsManyKeysAsItHasRows) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Judge) d.key(Qt::Key_PageDown);
    d.key(Qt::Key_A);
    choose(d, "approach", optionOf(playbook(), "card-of-parts"));
    choose(d, "focus", 0);
    const auto& session = d.review().session();
    ASSERT_TRUE(waitFor([&] { return session.review().approach().id == "card-of-parts"; }));
    const int all = session.assessment().counts.judgedAll;
    EXPECT_GE(all, 40);
    d.key(Qt::Key_Return); // to the first open row
    int presses = 1, asked = 0;
    while (session.assessment().counts.judged < all && presses < 2 * all) {
        d.key(presses % 3 == 0 ? Qt::Key_4 : Qt::Key_5);
        ++presses;
        if (!d.window().findChild<QDialog*>("which-way")) continue;
        choose(d, "which-way", 0); // one more key where a row can be off on two sides
        ++asked;
    }
    EXPECT_EQ(session.assessment().counts.judged, all);
    EXPECT_LE(presses, all + 1);
    EXPECT_LE(asked, 5);
    RecordProperty("rows", all);
    RecordProperty("presses", presses);
    std::set<std::string> states;
    for (const ItemRow& i : session.assessment().items) states.insert(std::string(idOf(i.grade->state)));
    EXPECT_EQ(states, (std::set<std::string>{"graded", std::string(idOf(GradeState::NotVisible))}));
    EXPECT_TRUE(session.assessment().items.size() > 0);
    d.key(Qt::Key_Z);
    EXPECT_EQ(session.assessment().counts.judged, all - 1);
}

TEST_F(JudgeWindow, AMeasureIsJudgedByHandWithAReasonAndGetsATarget) {
    selectRow(d, "leg-spread");
    d.key(Qt::Key_2);
    choose(d, "which-way", 0);
    answer(d, "by-hand", "the pelvis is hidden by a sleeve");
    const auto row = [&] { return d.review().session().assessment().measure("leg-spread"); };
    ASSERT_TRUE(waitFor([&] { return row()->byHand.has_value(); }));
    EXPECT_EQ(row()->judgement.verdict, Verdict::Adjust);
    EXPECT_EQ(row()->byHand->reason, "the pelvis is hidden by a sleeve");
    EXPECT_EQ(row()->byHand->side, kBelow);
    selectRow(d, "leg-spread");
    d.key(Qt::Key_Delete);
    ASSERT_TRUE(waitFor([&] { return !row()->byHand; }));
    selectRow(d, "leg-spread");
    d.key(Qt::Key_T);
    answer(d, "target", "at least 60");
    choose(d, "for-whom", 1);
    answer(d, "why", "short legs this year");
    ASSERT_TRUE(waitFor([&] { return row()->target.x == 60; }));
    EXPECT_EQ(row()->judgement.verdict, Verdict::Keep);
    d.settle();
    const auto athlete = walk.library->athlete(walk.athlete.id);
    ASSERT_EQ(athlete->targets.size(), 1U);
    EXPECT_EQ(athlete->targets[0].owner->reason, "short legs this year");
    EXPECT_EQ(athlete->targets[0].owner->who, "Ilse Varnholt");
}

TEST_F(JudgeWindow, LettersTypedAtAQuestionGoIntoItsLineAndItsSpacePressesNothing) {
    selectRow(d, "leg-spread");
    d.key(Qt::Key_T);
    QDialog* dialog = opened(d, "target");
    ASSERT_TRUE(dialog);
    for (const QChar c : QString("at least 48")) QTest::keyClick(QApplication::focusWidget(), c.toLatin1());
    EXPECT_EQ(dialog->findChild<QLineEdit*>()->text(), "at least 48");
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    choose(d, "for-whom", 0);
    const auto row = [&] { return d.review().session().assessment().measure("leg-spread"); };
    EXPECT_TRUE(waitFor([&] { return row()->target.x == 48; }));
}

TEST_F(JudgeWindow, TheLineAboveSaysByWhichApproachNow) {
    const auto line = [&] { return d.review().findChild<ui::LineBar*>()->accessibleDescription(); };
    EXPECT_TRUE(line().contains("Load and drive")) << line().toStdString();
    d.key(Qt::Key_A);
    choose(d, "approach", optionOf(playbook(), "tall-and-closed"));
    choose(d, "focus", 0);
    EXPECT_TRUE(waitFor([&] { return line().contains("Tall and closed"); })) << line().toStdString();
}

// Chosen from another delivery, it is shown on the film it was made on.
TEST_F(JudgeWindow, AFindingOfAnotherDeliveryTakesItsFilmInHand) {
    d.key(Qt::Key_E);
    answer(d, "own-finding", "Taps the glove before he goes");
    choose(d, "group", 2);
    choose(d, "drill", 1);
    auto& session = d.review().session();
    ASSERT_TRUE(waitFor([&] { return session.review().own.size() == 1; }));
    const OwnFinding own = session.review().own[0];
    ASSERT_TRUE(session.lookAt(session.clip().id, FrameSpan{2, 9}));
    ASSERT_NE(session.inHand(), own.delivery);
    selectRow(d, own.id);
    EXPECT_EQ(session.inHand(), own.delivery);
    EXPECT_EQ(d.review().playhead().frame(), own.frame);
    d.key(Qt::Key_2);
    EXPECT_TRUE(waitFor([&] { return session.review().judging().grade(own.delivery, own.id) != nullptr; }));
}

TEST_F(JudgeWindow, AFindingOfTheCoachsOwnIsGradedAndTakenAway) {
    d.key(Qt::Key_E);
    answer(d, "own-finding", "Taps the glove before he goes");
    choose(d, "group", 2);
    choose(d, "drill", 1);
    const auto& session = d.review().session();
    ASSERT_TRUE(waitFor([&] { return session.review().own.size() == 1; }));
    const OwnFinding own = session.review().own[0];
    EXPECT_EQ(own.group, "arm");
    EXPECT_FALSE(own.drill.empty());
    selectRow(d, own.id);
    EXPECT_EQ(d.review().playhead().frame(), own.frame);
    d.key(Qt::Key_2);
    ASSERT_TRUE(waitFor([&] { return session.review().judging().grade(1, own.id) != nullptr; }));
    EXPECT_FALSE(session.assessment().faults().empty());
    selectRow(d, own.id);
    d.key(Qt::Key_Delete);
    selectRow(d, own.id);
    d.key(Qt::Key_Delete);
    EXPECT_TRUE(waitFor([&] { return session.review().own.empty(); }));
}

TEST_F(JudgeWindow, TheSecondPersonSeesWhatIsMissingAndReadsBack) {
    d.key(Qt::Key_M);
    auto* reader = d.window().findChild<ui::CardReader*>();
    ASSERT_TRUE(reader);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(reader));
    const auto missing = [&] { return reader->findChild<ui::RowList*>("card-open")->rows().size(); };
    const std::size_t before = missing();
    ASSERT_GT(before, 0U);
    d.window().activateWindow();
    d.key(Qt::Key_Return);
    const auto card = cardOf(d.document(), playbook(), d.review().session().assessment());
    const auto open =
        std::find_if(card.begin(), card.end(), [](const CardRow& r) { return r.open && !r.isMeasure; });
    ASSERT_NE(open, card.end());
    const QString name = QString::fromStdString(playbook().nameOfFinding(open->id));
    selectRow(d, open->id);
    d.key(Qt::Key_4);
    EXPECT_TRUE(waitFor([&] { return missing() == before - 1; }));
    EXPECT_TRUE(reader->findChild<QLabel*>("read-back")->text().contains(name));
}

TEST_F(JudgeWindow, AContradictionIsSaidWhileWorkingAndLedTo) {
    auto* problem = d.review().findChild<QLabel*>("contradiction");
    ASSERT_TRUE(problem);
    EXPECT_FALSE(problem->isVisible()) << problem->text().toStdString();
    Plan plan = d.document().plan;
    plan.opening = "Your left throwing arm was late.";
    ASSERT_TRUE(d.review().session().perform(asIs("Write"), {SetPlan{plan}}));
    EXPECT_TRUE(waitFor([&] { return problem->isVisible(); }));
    EXPECT_TRUE(problem->text().contains("left throwing arm"));
}

TEST_F(JudgeWindow, OneDeliveryByTwoApproaches) {
    d.key(Qt::Key_Y);
    std::vector<std::string> others;
    for (const Approach& a : playbook().approaches)
        if (a.id != "load-and-drive") others.push_back(a.id);
    const auto at = std::find(others.begin(), others.end(), "tall-and-closed") - others.begin();
    choose(d, "compare-with", static_cast<int>(at));
    QDialog* dialog = opened(d, "comparison");
    ASSERT_TRUE(dialog);
    auto* rows = dialog->findChild<ui::RowList*>("comparison-rows");
    const auto& all = rows->rows();
    const auto knee = std::find_if(
        all.begin(), all.end(), [](const ui::ListRow& r) { return r.title.startsWith("Back knee, load"); });
    ASSERT_NE(knee, all.end());
    EXPECT_TRUE(knee->sub.contains("at most 110") && knee->sub.contains("at least 125"))
        << knee->sub.toStdString();
    EXPECT_EQ(d.document().approach().id, "load-and-drive");
    dialog->close();
}

/// Presses the door of that name that is in sight. Where it lies hangs on a layout that a busy machine makes
/// late.
void pressIn(QWidget* place, const char* name) {
    QPushButton* found = nullptr;
    ASSERT_TRUE(waitFor([&] {
        for (QPushButton* b : place->findChildren<QPushButton*>(name))
            if (b->isVisible()) found = b;
        return found != nullptr;
    })) << name;
    found->click();
}

TEST(PlaybookWindow, ACopyIsMadeRenamedChangedAndHandedOn) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("playbook");
    auto* place = d.window().findChild<ui::PlaybookPlace*>();
    ASSERT_TRUE(place);
    auto* list = place->findChild<ui::RowList*>("approaches");
    EXPECT_EQ(list->rows().size(), playbook().approaches.size());
    const int deep = optionOf(playbook(), "load-and-drive");
    list->setCurrent(deep);
    Q_EMIT list->selected(deep);
    const auto press = [&](const char* name) { pressIn(place, name); };
    press("copy");
    answer(d, "rename", "My way");
    ASSERT_TRUE(waitFor([&] { return list->rows().size() == playbook().approaches.size() + 1; }));
    EXPECT_EQ(list->rows().back().title, "My way");
    press("add-row");
    QDialog* pick = opened(d, "pick-row");
    ASSERT_TRUE(pick);
    auto* search = pick->findChild<QLineEdit*>("found-line");
    QTest::keyClicks(search, "Stance width");
    EXPECT_EQ(pick->findChild<ui::RowList*>("found-rows")->rows().size(), 1U);
    QTest::keyClick(search, Qt::Key_Return);
    QDialog* asked = opened(d, "target");
    ASSERT_TRUE(asked);
    const auto keepTarget = [&] { d.click(asked->findChild<QPushButton*>("main")); };
    asked->findChild<QComboBox*>("target-type")->setCurrentIndex(0);
    keepTarget(); // no number yet: it says so and stays
    EXPECT_FALSE(asked->findChild<QLabel*>("form-problem")->text().isEmpty());
    asked->findChild<QComboBox*>("target-type")->setCurrentIndex(2);
    asked->findChild<QLineEdit*>("target-x")->setText("0,8");
    asked->findChild<QLineEdit*>("target-y")->setText("1.2");
    asked->findChild<QPlainTextEdit*>("target-why")->setPlainText("A stance that can be held.");
    keepTarget();
    const auto kept = [&] {
        Playbook book = playbook();
        EXPECT_TRUE(loadOwnApproaches(*walk.library, book));
        return book.approaches.back();
    };
    ASSERT_TRUE(waitFor([&] { return kept().targetOf("stance-width") != nullptr; }));
    EXPECT_EQ(kept().version, 3); // copied, renamed, one row added
    EXPECT_EQ(kept().targetOf("stance-width")->x, 0.8);
    EXPECT_EQ(kept().targetOf("stance-width")->why, "A stance that can be held.");
    press("ages");
    answer(d, "ages", "9-13");
    EXPECT_TRUE(waitFor([&] { return kept().ageTo == 13; }));
    press("teaching");
    QDialog* how = opened(d, "teaching-order");
    ASSERT_TRUE(how);
    how->findChild<QComboBox*>("order")->setCurrentIndex(static_cast<int>(Teaching::FromTheEnd));
    how->findChild<QLineEdit*>("power")->setText("the front leg");
    d.click(how->findChild<QPushButton*>("main"));
    EXPECT_TRUE(waitFor([&] { return kept().teaching == Teaching::FromTheEnd; }));
    EXPECT_EQ(kept().power, "the front leg");
    const std::filesystem::path file = walk.folder / "mine.json";
    std::ofstream(file) << *approachFile(*walk.library, playbook(), kept());
    place->readIn(QString::fromStdString(file.string()));
    EXPECT_EQ(list->rows().size(), playbook().approaches.size() + 2);
    std::ofstream(file) << "{ \"format\": ";
    place->readIn(QString::fromStdString(file.string()));
    EXPECT_EQ(list->rows().size(), playbook().approaches.size() + 2);
    press("remove");
    choose(d, "remove", 1);
    EXPECT_TRUE(waitFor([&] { return list->rows().size() == playbook().approaches.size() + 1; }));
}

/// Fills a form's lines and keeps it; false while it says what is wrong.
bool fillAndKeep(Driver& d, QDialog* form, const std::map<const char*, const char*>& fields) {
    for (const auto& [name, words] : fields) {
        if (auto* line = form->findChild<QLineEdit*>(name)) line->setText(words);
        if (auto* box = form->findChild<QPlainTextEdit*>(name)) box->setPlainText(words);
        if (auto* spin = form->findChild<QSpinBox*>(name)) spin->setValue(QString(words).toInt());
    }
    const QPointer<QDialog> open = form;
    d.click(form->findChild<QPushButton*>("main"));
    return waitFor([&] { return !open || !open->isVisible(); }, 300);
}

TEST(PlaybookWindow, AFocusCardIsMadeWithSmallMissesAndJudgedBy) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("playbook");
    auto* place = d.window().findChild<ui::PlaybookPlace*>();
    ASSERT_TRUE(place);
    auto* list = place->findChild<ui::RowList*>("approaches");
    const int deep = optionOf(playbook(), "load-and-drive");
    list->setCurrent(deep);
    Q_EMIT list->selected(deep);
    const auto tick = [](QDialog* form, const char* rows, const std::string& row) {
        auto* all = form->findChild<QListWidget*>(QString(rows) + "-list");
        ASSERT_TRUE(all);
        const auto found =
            all->findItems(QString::fromStdString(playbook().nameOfFinding(row)), Qt::MatchExactly);
        ASSERT_EQ(found.size(), 1) << row;
        found.first()->setCheckState(Qt::Checked);
    };
    const auto keep = [](QDialog* form) { QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier); };
    pressIn(place, "new-focus");
    QDialog* form = opened(d, "new-focus");
    ASSERT_TRUE(form);
    form->findChild<QLineEdit*>("focus-name")->setText("Back leg");
    keep(form);
    EXPECT_TRUE(form->isVisible()); // nothing is ticked yet
    for (const char* row : {"back-knee", "leg-spread", "load-shared"}) tick(form, "focus-rows", row);
    keep(form);
    ASSERT_TRUE(waitFor([&] { return list->rows().size() == playbook().approaches.size() + 1; }));
    pressIn(place, "lenient");
    form = opened(d, "lenient-rows");
    ASSERT_TRUE(form);
    tick(form, "lenient-list", "leg-spread");
    keep(form);
    Playbook live = playbook();
    ASSERT_TRUE(waitFor([&] {
        live = playbook();
        EXPECT_TRUE(loadOwnPlaybook(*walk.library, live));
        return live.approaches.size() > playbook().approaches.size() &&
               std::any_of(live.approaches.begin(), live.approaches.end(),
                           [](const Approach& a) { return a.name == "Back leg" && !a.lenient.empty(); });
    }));
    const auto made = std::find_if(live.approaches.begin(), live.approaches.end(),
                                   [](const Approach& a) { return a.name == "Back leg"; });
    EXPECT_EQ(made->targets.size(), 2U);
    EXPECT_EQ(made->graded, std::vector<std::string>{"load-shared"});
    EXPECT_TRUE(made->isLenient("leg-spread"));
}

// An item, a drill and a cause of the coach's own, and a shipped item said otherwise, all in the window.
TEST(PlaybookWindow, WhatItSaysIsTheCoachs) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("playbook");
    auto* place = d.window().findChild<ui::PlaybookPlace*>();
    const auto press = [&](const char* name) { pressIn(place, name); };
    const auto book = [&] {
        Playbook live = playbook();
        EXPECT_TRUE(loadOwnPlaybook(*walk.library, live));
        return live;
    };
    press("copy");
    answer(d, "rename", "My way");
    press("new-item");
    QDialog* form = opened(d, "edit-row");
    ASSERT_TRUE(form);
    EXPECT_FALSE(fillAndKeep(d, form, {{"item-name", "Cap stays straight"}}));
    EXPECT_TRUE(form->findChild<QLabel*>("form-problem")->text().contains("wrong"));
    form->findChild<QCheckBox*>("open")->setChecked(true);
    EXPECT_TRUE(fillAndKeep(d, form,
                            {{"item-fault", "Cap flies off"},
                             {"item-goal", "Keep the cap on"},
                             {"item-coach", "The cap tells of the head."},
                             {"item-young", "Keep your cap on."},
                             {"item-player", "Keep the cap on until the ball is gone."},
                             {"item-parent", "A cap that flies tells of a head that jerks."}}));
    ASSERT_TRUE(waitFor([&] { return book().items.size() == playbook().items.size() + 1; }));
    const std::string item = book().items.back().id;
    EXPECT_TRUE(waitFor([&] { return book().approaches.back().graded.back() == item; })); // asked at once
    press("new-drill");
    form = opened(d, "edit-row");
    ASSERT_TRUE(form);
    EXPECT_FALSE(fillAndKeep(
        d, form, {{"drill-name", "Cap walk"}, {"drill-how", "Walk ten steps, the cap laid on top."}}));
    EXPECT_TRUE(form->findChild<QLabel*>("form-problem")->text().contains("dose"));
    auto* serves = form->findChild<QListWidget*>("drill-serves-list");
    for (int i = 0; i < serves->count(); ++i)
        if (serves->item(i)->text() == "Cap stays straight") serves->item(i)->setCheckState(Qt::Checked);
    EXPECT_TRUE(fillAndKeep(d, form, {{"drill-sets", "2"}, {"drill-reps", "10"}, {"drill-days", "3"}}));
    ASSERT_TRUE(waitFor([&] { return book().drills.size() == playbook().drills.size() + 1; }));
    EXPECT_EQ(book().drills.back().serves, std::vector<std::string>{item});
    press("new-cause");
    form = opened(d, "edit-row");
    ASSERT_TRUE(form);
    auto* from = form->findChild<QComboBox*>("cause-from");
    from->setCurrentIndex(from->findText("Cap stays straight"));
    EXPECT_TRUE(fillAndKeep(
        d, form,
        {{"cause-says", "Coach Rowan"}, {"cause-why", "A jerk of the head goes all the way down."}}));
    EXPECT_TRUE(waitFor([&] { return book().causes.size() == playbook().causes.size() + 1; }));
    // What was written stands below, with its edition.
    EXPECT_TRUE(waitFor([&] {
        const auto labels = place->findChildren<QLabel*>();
        return std::any_of(labels.begin(), labels.end(), [](const QLabel* l) {
            return l->isVisible() && l->text() == "Your own items, causes and drills";
        });
    }));
    EXPECT_TRUE(cutIn(place).empty()) << cutIn(place);
}

} // namespace
} // namespace jg::test
