// SPDX-License-Identifier: GPL-3.0-or-later
// The library looked over from the desk: what is wrong, what a repair would do, and that nothing happens
// unasked.
#include "base/fault_log.h"
#include "tests/support/harm.h"
#include "tests/ui/driver.h"

#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

class LibraryWindow : public testing::Test {
protected:
    QDialog* opened() {
        d.settle();
        d.key(Qt::Key_Y);
        QDialog* dialog = nullptr;
        EXPECT_TRUE(
            waitFor([&] { return (dialog = d.window().findChild<QDialog*>("library-dialog")) != nullptr; }));
        return dialog;
    }
    static bool says(QDialog* dialog, const QString& words) {
        return waitFor([&] {
            for (const QLabel* l : dialog->findChildren<QLabel*>())
                if (l->text().contains(words)) return true;
            return false;
        });
    }

    Walk walk{Stage::Measure};
    Driver d{walk.library->folder()};
};

TEST_F(LibraryWindow, AWholeLibraryIsSaidToBeWhole) {
    QDialog* dialog = opened();
    ASSERT_TRUE(dialog);
    EXPECT_TRUE(says(dialog, "All is well"));
    EXPECT_FALSE(dialog->findChild<QPushButton*>("library-repair")->isVisible());
    dialog->close();
}

TEST_F(LibraryWindow, WhatIsWrongIsToldWithItsRepairAndDoneWhenAgreed) {
    test::harm(walk.library->folder(),
               "UPDATE athletes SET document = replace(document, 'Odalys', 'Odalyt')");
    QDialog* dialog = opened();
    ASSERT_TRUE(dialog);
    EXPECT_TRUE(says(dialog, "altered by something else"));
    EXPECT_TRUE(says(dialog, "counts as it reads now"));
    EXPECT_FALSE(walk.library->verify().empty()); // nothing was done yet
    EXPECT_EQ(test::cutIn(dialog), "");
    d.click(dialog->findChild<QPushButton*>("library-repair"));
    EXPECT_TRUE(says(dialog, "All is well"));
    EXPECT_TRUE(walk.library->verify().empty());
    dialog->close();
}

TEST_F(LibraryWindow, AMissingFilmOffersNoRepair) {
    std::filesystem::remove(walk.library->mediaPath(walk.submission.clips[0]));
    QDialog* dialog = opened();
    ASSERT_TRUE(dialog);
    EXPECT_TRUE(says(dialog, "from a backup"));
    EXPECT_FALSE(dialog->findChild<QPushButton*>("library-repair")->isVisible());
    dialog->close();
}

TEST_F(LibraryWindow, AFilmWhoseFactsWereLostIsLookedAtAgainByKey) {
    test::harm(walk.library->folder(), "UPDATE submissions SET document = '{'");
    QDialog* dialog = opened();
    ASSERT_TRUE(dialog);
    EXPECT_TRUE(says(dialog, "key K in Look"));
    EXPECT_EQ(test::cutIn(dialog), "");
    d.click(dialog->findChild<QPushButton*>("library-repair"));
    EXPECT_TRUE(says(dialog, "All is well"));
    dialog->close();
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    const auto clip = [&]() -> const Clip& { return d.review().session().clip(); };
    EXPECT_TRUE(clip().unseen());
    d.key(Qt::Key_K);
    EXPECT_TRUE(waitFor([&] { return clip().frames == walk.submission.clips[0].frames; }));
    d.waitForPicture();
    d.stepTo(clip().frames - 1);
    EXPECT_EQ(walk.library->submission(walk.submission.id)->clips[0].frames, clip().frames);
}

TEST_F(LibraryWindow, AFaultIsReportedByKeyAndByMouse) {
    noteFault("reader", "Damaged: reader.cut-short");
    d.settle();
    d.key(Qt::Key_F1, Qt::ControlModifier);
    QDialog* dialog = nullptr;
    ASSERT_TRUE(
        waitFor([&] { return (dialog = d.window().findChild<QDialog*>("fault-dialog")) != nullptr; }));
    const QString report = dialog->findChild<QPlainTextEdit*>("fault-report")->toPlainText();
    EXPECT_TRUE(report.contains("reader  Damaged: reader.cut-short")) << report.toStdString();
    EXPECT_FALSE(report.contains("Odalys"));
    EXPECT_EQ(test::cutIn(dialog), "");
    d.click(dialog->findChild<QPushButton*>("fault-copy"));
    EXPECT_EQ(QApplication::clipboard()->text(), report);
    dialog->close();
    QDialog* library = opened();
    ASSERT_TRUE(library);
    d.click(library->findChild<QPushButton*>("library-fault"));
    EXPECT_TRUE(waitFor([&] { return (dialog = library->findChild<QDialog*>("fault-dialog")) != nullptr; }));
    if (dialog) dialog->close();
    library->close();
}

} // namespace
} // namespace jg
