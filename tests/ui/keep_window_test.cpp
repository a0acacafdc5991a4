// SPDX-License-Identifier: GPL-3.0-or-later
// The log's page, the group, and what is done with an athlete as a whole, from the window.
#include "desk/keeping/backup_reminder.h"
#include "library/backup.h"
#include "library/bundle.h"
#include "tests/ui/driver.h"
#include "ui/kit/hot_spot.h"
#include "ui/places/athletes/history_grid.h"
#include "ui/places/keep/keep_jobs.h"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(LogWindow, ADotLeadsToItsFilmAtThatFrame) {
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    auto* grid = d.window().findChild<ui::HistoryGrid*>("history");
    ASSERT_TRUE(grid);
    const auto log = readLog(*walk.library, test::playbook(), walk.athlete.id);
    ASSERT_TRUE(log);
    const LogDot dot = log->lines.front().dots.front(); // worked on, with a frame
    ASSERT_TRUE(dot.frame);
    d.click(grid->findChildren<ui::HotSpot*>().front());
    ASSERT_TRUE(d.window().reviewPlace());
    EXPECT_TRUE(waitFor([&] { return d.review().stage().shownFrame() == *dot.frame; }));
    EXPECT_EQ(d.review().playhead().frame(), *dot.frame);
}

TEST(LogWindow, FindingsAreFilteredByName) {
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    auto* filter = d.window().findChild<QLineEdit*>("history-filter");
    ASSERT_TRUE(filter);
    d.type(filter, "no such finding");
    EXPECT_TRUE(waitFor([&] { return !d.window().findChild<ui::HistoryGrid*>("history"); }));
    filter->clear();
    EXPECT_TRUE(d.window().findChild<ui::HistoryGrid*>("history"));
}

TEST(GroupWindow, ARowLeadsToItsAthlete) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("group");
    d.settle();
    auto* table = d.window().findChild<QTableWidget*>("group-table");
    ASSERT_TRUE(table);
    ASSERT_TRUE(waitFor([&] { return table->rowCount() == 1; }));
    EXPECT_TRUE(table->item(0, 0)->text().contains(QString::fromStdString(walk.athlete.lastName)));
    EXPECT_TRUE(table->item(0, 5)->text().endsWith(" errors")) << table->item(0, 5)->text().toStdString();
    const auto lastEnds = [&] {
        return table->columnViewportPosition(table->columnCount() - 1) +
               table->columnWidth(table->columnCount() - 1);
    };
    EXPECT_LE(lastEnds(), table->viewport()->width()); // no column is out of sight
    // On a wide screen nothing is cut, and no column stands alone at the edge.
    d.window().resize(1920, 1080);
    d.settle();
    EXPECT_LE(lastEnds(), table->viewport()->width());
    for (int c = 0; c < table->columnCount(); ++c)
        EXPECT_GT(table->columnWidth(c), table->viewport()->width() / 12) << c;
    EXPECT_GE(table->columnWidth(4), table->fontMetrics().horizontalAdvance(table->item(0, 4)->text()));
    d.key(Qt::Key_Return);
    d.settle();
    EXPECT_TRUE(d.window().findChild<QPushButton*>("edit-athlete")->isVisible());
}

TEST(KeepWindow, AnAthleteIsDeletedOnlyWhenTheNameIsTyped) {
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    d.window().findChild<QPushButton*>("athlete-forget")->click();
    QDialog* dialog = test::opened(d, "forget");
    ASSERT_TRUE(dialog);
    auto* name = dialog->findChild<QLineEdit*>("forget-name");
    // The button of what can't be taken back says so; it once read "Keep".
    EXPECT_TRUE(dialog->findChild<QPushButton*>("main")->text().startsWith("Delete "));
    d.type(name, "Somebody");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(walk.library->athlete(walk.athlete.id)); // it stays open and says why
    ASSERT_TRUE(dialog->isVisible());
    name->clear();
    d.type(name, QString::fromStdString(walk.athlete.fullName()));
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(waitFor([&] { return !walk.library->athlete(walk.athlete.id).ok(); }));
    EXPECT_TRUE(waitFor([&] { return d.window().findChild<QPushButton*>("athlete-forget") == nullptr; }));
    d.settle();
    EXPECT_FALSE(walk.library->athlete(walk.athlete.id));
    EXPECT_FALSE(std::filesystem::exists(walk.library->mediaPath(walk.submission.clips.front())));
}

TEST(KeepWindow, ABundleDroppedOnTheDeskIsTakenIn) {
    Walk walk(Stage::Judge);
    const auto zip = walk.folder / "one.zip";
    ASSERT_TRUE(exportBundle(*walk.library, {walk.athlete.id}, zip));
    ASSERT_TRUE(Library::open(walk.folder / "other", true, std::make_shared<FileStore>()));
    Driver d(walk.folder / "other");
    d.drop(QString::fromStdString(zip.string()));
    EXPECT_TRUE(waitFor([&] { return d.window().library().athlete(walk.athlete.id).ok(); }));
    EXPECT_TRUE(waitFor([&] { return d.window().library().reviews()->size() == 1; }));
}

TEST(KeepWindow, ABackupIsMadeReadAgainAndTold) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    QString told;
    const auto to = walk.folder / "disk";
    ui::backUpTo(&d.window(), d.window().library(), QString::fromStdString(to.string()), 1795000000,
                 [&](const QString& sentence, bool) { told = sentence; });
    ASSERT_TRUE(waitFor([&] { return told.contains("read again"); })) << told.toStdString();
    EXPECT_EQ(backupStates(to)->size(), 1U);
    EXPECT_TRUE(
        backupReminder(d.window().library(), 1795000000).empty()); // one review is not worth a reminder
}

} // namespace
} // namespace jg
