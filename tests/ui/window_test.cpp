// SPDX-License-Identifier: GPL-3.0-or-later
// Single places of the real window.
#include "review/assess/card.h"
#include "tests/support/harm.h"
#include "tests/ui/driver.h"

#include "apps/post_office/smtp_server.h"
#include "desk/keeping/places.h"
#include "ui/kit/actions.h"
#include "ui/kit/row_list.h"
#include "ui/kit/shortcut_sheet.h"
#include "ui/places/desk/intake_dialog.h"
#include "ui/stages/say/say_bench.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>

#include <csignal>
#include <fstream>
#include <random>
#include <set>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

using test::Driver;
using test::TempFolder;
using test::waitFor;
using test::Walk;

TEST(Actions, NoTwoKeysClashAnywhere) {
    EXPECT_EQ(ui::clashes(ui::actionTable()).join("; ").toStdString(), "");
}

TEST(Actions, AClashWouldBeFound) {
    const std::vector<ui::ActionRow> table = {{"a", {QKeySequence("X")}, ui::AtJudge},
                                              {"b", {QKeySequence("X")}, ui::InReview}};
    EXPECT_EQ(ui::clashes(table).size(), 1);
}

TEST(Actions, EachDoesSomethingWhereItWorks) {
    Walk walk;
    Driver d(walk.library->folder());
    const auto check = [&](unsigned where) {
        for (const ui::ActionRow& row : ui::actionTable())
            if (row.where & where) {
                EXPECT_TRUE(d.window().knows(row.id)) << row.id.toStdString() << " at " << where;
            }
    };
    check(ui::AtHome);
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    for (unsigned where = ui::AtLook; where <= ui::AtSend; where *= 2, d.key(Qt::Key_PageDown)) check(where);
}

TEST(Window, AReportOfPainIsClosedOnTheAthletesPageOnRecord) {
    Walk walk(Stage::Look, Hand::Right, 15, "Elbow sore");
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    auto* close = d.window().findChild<QPushButton*>("close-pain");
    ASSERT_TRUE(close);
    d.click(close);
    auto* dialog = d.window().findChild<QDialog*>("close-pain");
    ASSERT_TRUE(dialog);
    auto* words = dialog->findChild<QLineEdit*>();
    ASSERT_TRUE(words);
    QTest::keyClick(words, Qt::Key_Return); // without a word it stays open
    EXPECT_TRUE(walk.library->submission(walk.submission.id)->painOpen());
    d.type(words, "Cleared by the team's doctor on Monday.");
    QTest::keyClick(words, Qt::Key_Return);
    d.settle();
    const auto now = walk.library->submission(walk.submission.id);
    ASSERT_TRUE(now->painClosed);
    EXPECT_EQ(now->painClosed->words, "Cleared by the team's doctor on Monday.");
    EXPECT_EQ(now->painClosed->on, test::today());
    EXPECT_EQ(now->pain, "Elbow sore"); // what was reported stays
    EXPECT_FALSE(d.window().findChild<QPushButton*>("close-pain"));
}

TEST(Actions, EveryRowHasATextAPlaceAndAKey) {
    std::set<QString> ids;
    for (const ui::ActionRow& row : ui::actionTable()) {
        EXPECT_TRUE(ids.insert(row.id).second) << row.id.toStdString();
        EXPECT_FALSE(row.text().isEmpty());
        EXPECT_FALSE(row.keys.isEmpty());
        EXPECT_NE(row.where, 0U);
    }
}

TEST(Window, TheShortcutSheetListsTheWholeTable) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.key(Qt::Key_F1);
    auto* sheet = d.window().findChild<QDialog*>("shortcuts");
    ASSERT_TRUE(sheet);
    QStringList words;
    for (const QLabel* l : sheet->findChildren<QLabel*>()) words << l->text();
    for (const ui::ActionRow& row : ui::actionTable())
        EXPECT_TRUE(words.contains(row.text())) << row.text().toStdString();
    d.key(Qt::Key_Escape);
    EXPECT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>("shortcuts") || !sheet->isVisible(); }));
}

TEST(Window, ASaidStopCanBeListenedTo) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.waitForPicture();
    d.key(Qt::Key_P);
    EXPECT_TRUE(d.review().foot().sentence().contains("Listening"));
    d.key(Qt::Key_Escape);
    EXPECT_FALSE(d.review().foot().sentence().contains("Listening"));
}

TEST(Window, AStopIsSaidAgainFromWhereItIsListenedTo) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.waitForPicture();
    const StopId stop = d.document().stops.front().id;
    const Take before = d.document().takes.at(stop);
    d.key(Qt::Key_P);
    QTest::qWait(700);
    d.key(Qt::Key_R);
    EXPECT_TRUE(d.review().foot().sentence().contains("Said again from"))
        << d.review().foot().sentence().toStdString();
    QTest::qWait(400);
    d.key(Qt::Key_Escape);
    d.settle();
    const Take now = d.document().takes.at(stop);
    EXPECT_NE(now.file, before.file);
    const auto was = readSound(walk.library->takePath(before.file)),
               is = readSound(walk.library->takePath(now.file));
    ASSERT_TRUE(was && is);
    constexpr std::size_t kKept = kSampleRate / 2; // surely heard before R
    ASSERT_GT(is->size(), kKept);
    EXPECT_TRUE(std::equal(was->begin(), was->begin() + kKept, is->begin()));
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.document().takes.at(stop), before);
}

TEST(Window, PositionsOutOfOrderAreRefusedWithAWord) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageDown);
    d.stepTo(40);
    d.key(Qt::Key_Return); // Set at 40
    d.stepTo(20);
    d.key(Qt::Key_Return); // the top of the lift can't come before
    EXPECT_TRUE(d.review().foot().sentence().contains("can't come before"));
    EXPECT_EQ(d.delivery().moments.size(), 1U);
    d.key(Qt::Key_H);
    auto* reason = d.review().findChild<QDialog*>("reason");
    ASSERT_TRUE(reason);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(reason));
    QTest::keyClick(reason, Qt::Key_4);
    EXPECT_TRUE(
        waitFor([&] { return d.delivery().moments.size() == 2 && !QApplication::activeModalWidget(); }));
    EXPECT_EQ(d.delivery().moments.at(Moment::LiftTop).notVisible, "blurred");
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.delivery().moments.size(), 1U);
    d.key(Qt::Key_Z, Qt::ShiftModifier);
    EXPECT_EQ(d.delivery().moments.size(), 2U);
}

// Enter once wrote over the position that followed the ninth.
TEST(Window, ASetPositionIsMovedByASecondEnterOnly) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Positions) d.key(Qt::Key_PageUp);
    auto* list = d.review().findChild<ui::RowList*>("positions");
    list->setCurrent(static_cast<int>(Moment::Plant));
    Q_EMIT list->selected(static_cast<int>(Moment::Plant));
    const auto plant = *d.delivery().frameOf(Moment::Plant);
    d.stepTo(plant + 1);
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.delivery().frameOf(Moment::Plant), plant);
    EXPECT_TRUE(d.review().foot().sentence().contains("Enter once more"))
        << d.review().foot().sentence().toStdString();
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.delivery().frameOf(Moment::Plant), plant + 1);
    d.key(Qt::Key_Return); // it stands here, and nothing is open: on
    EXPECT_EQ(d.review().stageOfWalk(), Stage::Measure);
    EXPECT_EQ(d.delivery().frameOf(Moment::Plant), plant + 1);
}

TEST(Window, TwoPositionsOnOneFrameAreAskedAbout) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageDown);
    d.stepTo(40);
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.delivery().moments.size(), 1U);
    EXPECT_TRUE(d.review().foot().sentence().contains("already"));
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.delivery().frameOf(Moment::LiftTop), 40);
}

TEST(Window, WithoutAMicrophoneItSaysSoAndEverythingElseGoesOn) {
    Walk walk;
    Driver d(walk.library->folder(), 1, {});
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_PageUp);
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Say);
    const auto takes = d.document().takes.size();
    d.key(Qt::Key_R);
    EXPECT_TRUE(d.review().foot().sentence().contains("microphone"));
    EXPECT_EQ(d.document().takes.size(), takes);
    d.key(Qt::Key_PageDown);
    EXPECT_EQ(d.review().stageOfWalk(), Stage::Prescribe);
}

TEST(Window, SendingIsRefusedUntilPainIsConfirmed) {
    Walk walk(Stage::Send, Hand::Right, 13, "Elbow sore since Sunday.");
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Send);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(d.window().library().outbox()->empty());
    auto* confirm = d.review().findChild<QCheckBox*>("confirm-pain");
    ASSERT_TRUE(confirm->isVisible());
    d.click(confirm, QPoint(8, confirm->height() / 2));
    EXPECT_TRUE(d.document().plan.painConfirmed);
}

TEST(Window, WhatStopsALetterIsPressedToGoThere) {
    Walk walk;
    {
        auto session = walk.session();
        Plan plan = walk.review.plan;
        plan.drills.clear();
        ASSERT_TRUE(session->perform(asIs("no drill"), {SetPlan{plan}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Send) d.key(Qt::Key_PageDown);
    d.click(d.button(&d.review(), "Prescribe \u203a"));
    EXPECT_TRUE(waitFor([&] { return d.review().stageOfWalk() == Stage::Prescribe; }));
}

TEST(Window, ARefusedServerLeavesTheLetterInTheOutbox) {
    Walk walk;
    test::leaveUnsaid(walk); // a letter is quicker made than a film
    ASSERT_TRUE(walk.library->setSetting("mail.url", "smtp://127.0.0.1:1"));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    auto* state = d.review().findChild<QLabel*>("send-state");
    d.key(Qt::Key_Return, Qt::ControlModifier); // it asks once
    EXPECT_TRUE(state->text().isEmpty());
    d.key(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return state->text().contains("outbox"); }, 120000))
        << state->text().toStdString();
    EXPECT_TRUE(state->text().contains("Nobody answers"));
    EXPECT_EQ(d.window().library().outbox()->at(0).state, MailState::Refused);
    EXPECT_FALSE(d.document().sent);

    // Later, from the post: the same as sending at once.
    TempFolder post;
    SmtpServer office{QString::fromStdString(post.path().string())};
    ASSERT_TRUE(office.listen(0));
    (void)d.window().library().setSetting("mail.url", "smtp://127.0.0.1:" + std::to_string(office.port()));
    const ReviewId review = d.document().id;
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_P, Qt::AltModifier);
    d.click(d.button(&d.window(), "Send now"));
    // Letter and film are made anew.
    ASSERT_TRUE(
        waitFor([&] { return d.window().library().outbox()->at(0).state == MailState::Sent; }, 120000));
    const auto stored = d.window().library().review(review);
    EXPECT_TRUE(stored->sent);
    ASSERT_EQ(d.window().library().promises()->size(), 3U); // the look, drills until then, and a film
    for (const Promise& p : *d.window().library().promises()) EXPECT_EQ(p.due, stored->plan.nextLook);
}

TEST(Window, ABrokenFilmIsRefusedInTheIntakeAndNothingIsStored) {
    Walk walk(Stage::Look);
    std::ofstream(walk.folder / "letter.mp4") << "no film";
    Driver d(walk.library->folder());
    d.drop(QString::fromStdString((walk.folder / "letter.mp4").string()));
    auto* dialog = d.window().findChild<QDialog*>("intake");
    ASSERT_TRUE(dialog);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
    auto* who = dialog->findChild<QComboBox*>("who");
    auto* problem = dialog->findChild<QLabel*>("intake-problem");
    who->setCurrentIndex(who->count() - 1); // someone new
    d.type(dialog->findChild<QLineEdit*>("first-name"), "Noor");
    d.type(dialog->findChild<QLineEdit*>("born"), "3/9/2011");
    d.click(d.button(dialog, "Take in"));
    EXPECT_TRUE(problem->text().contains("not one day for sure")) << problem->text().toStdString();
    dialog->findChild<QLineEdit*>("born")->clear();
    d.type(dialog->findChild<QLineEdit*>("born"), "2011-03-09");
    for (int again = 0; again < 2; ++again) {
        d.click(d.button(dialog, "Take in"));
        EXPECT_TRUE(waitFor([&] { return problem->isVisible() && problem->text().contains("not a film"); }))
            << problem->text().toStdString();
    }
    EXPECT_EQ(d.window().library().submissions()->size(), 1U);
    EXPECT_EQ(d.window().library().athletes()->size(), 1U); // nobody is new without their film
    // Leaving asks, for something was typed.
    const QPointer<QDialog> form = dialog;
    dialog->close();
    auto* question = dialog->findChild<QMessageBox*>("leave-intake");
    ASSERT_TRUE(question);
    EXPECT_TRUE(form && form->isVisible());
    for (auto* button : question->buttons())
        if (question->buttonRole(button) == QMessageBox::AcceptRole) button->click();
    EXPECT_TRUE(waitFor([&] { return !form || !form->isVisible(); }));
}

TEST(Window, AFilmCanBeTakenOffTheListAndRatesBeTyped) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.drop(QString::fromStdString((walk.folder / "film.mp4").string()));
    auto* dialog = d.window().findChild<QDialog*>("intake");
    ASSERT_TRUE(dialog);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
    dialog->findChild<QComboBox*>("who")->setCurrentIndex(1);
    auto* problem = dialog->findChild<QLabel*>("intake-problem");
    auto* rate = dialog->findChild<QComboBox*>("rate");
    rate->setCurrentText("fast");
    d.click(d.button(dialog, "Take in"));
    EXPECT_TRUE(problem->text().contains("no rate")) << problem->text().toStdString();
    rate->setCurrentText("59,94");
    d.click(d.button(dialog, "Take off"));
    d.click(d.button(dialog, "Take in"));
    EXPECT_TRUE(problem->text().contains("Add a film first")) << problem->text().toStdString();
    dialog->close(); // nothing is left that could be lost
    EXPECT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
}

TEST(Window, ARemarkStandsBesideAGradeAndShieldsAreExplained) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Judge);
    auto* items = d.review().findChild<ui::RowList*>("items");
    QStringList words;
    for (int i = 0; i < static_cast<int>(items->rows().size()); ++i) {
        items->setCurrent(i);
        Q_EMIT items->selected(i);
        for (const QLabel* l : d.review().bench()->findChildren<QLabel*>()) words << l->text();
    }
    EXPECT_TRUE(words.join(" ").contains("With a shield: it loads the arm"));
    const std::string item = d.review().session().assessment().items.front().id;
    const auto choose = [&] {
        const auto card = cardOf(d.document(), test::playbook(), d.review().session().assessment());
        const auto at =
            std::find_if(card.begin(), card.end(), [&](const CardRow& r) { return r.id == item; });
        items->setCurrent(static_cast<int>(at - card.begin()));
        Q_EMIT items->selected(static_cast<int>(at - card.begin()));
    };
    choose();
    d.key(Qt::Key_4);
    choose();
    d.key(Qt::Key_R);
    auto* dialog = d.window().findChild<QDialog*>("remark");
    ASSERT_TRUE(dialog);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
    QTest::keyClicks(dialog->findChild<QLineEdit*>(), "late by a frame");
    QTest::keyClick(dialog->findChild<QLineEdit*>(), Qt::Key_Return);
    const auto grade = [&] { return d.document().judging().grade(1, item); };
    ASSERT_TRUE(waitFor([&] { return grade() && grade()->reason == "late by a frame"; }));
    EXPECT_EQ(grade()->step, 4); // the grade and what it was given on stay
    EXPECT_TRUE(grade()->evidence.frame);
}

TEST(Window, AMissingFilmIsSaidOnTheStage) {
    Walk walk(Stage::Judge);
    std::filesystem::remove(walk.library->mediaPath(walk.submission.clips[0]));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    EXPECT_TRUE(waitFor([&] { return d.review().foot().sentence().contains("no file"); }));
}

TEST(Window, EveryPlaceAndStageFitsTheSmallestWindow) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().resize(1024, 640);
    const auto clipped = [&](QWidget* root) {
        QStringList found;
        for (QPushButton* b : root->findChildren<QPushButton*>()) {
            if (!b->isVisible()) continue;
            bool scrolled = false;
            for (QWidget* w = b->parentWidget(); w; w = w->parentWidget())
                scrolled |= qobject_cast<QScrollArea*>(w) != nullptr;
            const QRect inWindow(b->mapTo(&d.window(), QPoint(0, 0)), b->size());
            if (!scrolled && !d.window().rect().contains(inWindow)) found << b->text();
        }
        return found.join(", ").toStdString();
    };
    for (const char* place : {"desk", "athletes", "playbook", "post"}) {
        d.window().showPlace(place);
        QTest::qWait(10);
        EXPECT_EQ(clipped(&d.window()), "") << place;
    }
    d.window().openReview(walk.submission.id);
    for (int i = 0; i < 7; ++i) {
        QTest::qWait(10);
        EXPECT_EQ(clipped(&d.window()), "") << i;
        EXPECT_GE(d.review().stage().width() * 100 / d.window().width(), 60) << i;
        d.key(Qt::Key_PageUp);
    }
}

TEST(Window, AnEmptyLibrarySaysWhatToDoFirst) {
    const test::TempFolder folder;
    Driver d(folder / "new");
    QStringList words;
    for (const QLabel* l : d.window().findChildren<QLabel*>())
        if (l->isVisible()) words << l->text();
    EXPECT_TRUE(words.join(" ").contains("Drop film files on this window"));
}

/// True when the write-ahead log was written after `before`.
bool grownSince(const std::filesystem::path& wal, std::filesystem::file_time_type before) {
    std::error_code ec;
    const auto now = std::filesystem::last_write_time(wal, ec);
    return !ec && now > before && std::filesystem::file_size(wal, ec) > 0;
}

// A killed process loses at most the edit in flight: the window edits in a storm and is killed at 15 random
// moments; JUXTAGRAPH_LONG makes it 50.
TEST(Window, KilledAtAnyMomentTheLibraryOpensAndVerifies) {
    Walk walk(Stage::Judge);
    const std::string lib = walk.library->folder().string();
    const ReviewId id = walk.review.id;
    walk.library.reset();
    std::mt19937 engine(20261125);
    const std::string storm = (test::binFolder() / "edit_storm").string();
    const std::filesystem::path wal = lib + "/library.sqlite-wal";
    int edited = 0;
    std::string last;
    const int kills = std::getenv("JUXTAGRAPH_LONG") ? 50 : 15;
    for (int i = 0; i < kills; ++i) {
        const auto before = std::filesystem::exists(wal) ? std::filesystem::last_write_time(wal)
                                                         : std::filesystem::file_time_type::min();
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            ::execl(storm.c_str(), storm.c_str(), lib.c_str(), static_cast<char*>(nullptr));
            ::_exit(127);
        }
        // Every fifth is killed while it starts, the others among their edits, however slow the machine.
        if (i % 5 != 0) {
            ASSERT_TRUE(waitFor([&] { return grownSince(wal, before); })) << "the storm did not begin";
        }
        ::usleep(static_cast<useconds_t>(engine() % 200000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status)) << "the storm ended by itself with " << WEXITSTATUS(status);
        auto library = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(library) << i << ": " << said(library.error().text);
        const auto problems = (*library)->verify();
        ASSERT_TRUE(problems.empty()) << i << ": " << problems.front();
        const auto review = (*library)->review(id);
        ASSERT_TRUE(review) << said(review.error().text);
        const std::string now = review->plan.opening;
        edited += now != last;
        last = now;
    }
    EXPECT_GE(edited, kills / 2); // the kills fell among real edits
}

TEST(Window, AnUnreadableRowIsToldAndTheOthersStand) {
    Walk walk{Stage::Measure, Hand::Right};
    Athlete other;
    other.id = {"ath-other"};
    other.firstName = "Noor";
    other.lastName = "Halloran";
    other.born = *parseIsoDate("2012-05-04");
    ASSERT_TRUE(test::put(*walk.library, other));
    test::harm(walk.library->folder(), "UPDATE athletes SET document = '{' WHERE id = 'ath-other'");
    test::harm(walk.library->folder(), "UPDATE submissions SET document = '{'");
    Driver d{walk.library->folder()};
    d.settle();
    auto* missing = d.window().findChild<QLabel*>("desk-left-out");
    ASSERT_TRUE(missing);
    EXPECT_TRUE(missing->text().contains(QString::fromStdString(walk.athlete.fullName())))
        << missing->text().toStdString();
    d.window().showPlace("athletes");
    d.settle();
    auto* unread = d.window().findChild<QLabel*>("athletes-left-out");
    ASSERT_TRUE(unread);
    EXPECT_TRUE(unread->isVisible());
    EXPECT_TRUE(unread->text().contains("Noor Halloran")) << unread->text().toStdString();
    EXPECT_EQ(d.window().findChild<ui::RowList*>("athletes")->rows().size(), 1U);
}

} // namespace
} // namespace jg
