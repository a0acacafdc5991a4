// SPDX-License-Identifier: GPL-3.0-or-later
// Many at once: a roster from a table, and all letters that are ready.
#include "apps/post_office/smtp_server.h"
#include "tests/ui/driver.h"
#include "ui/kit/row_list.h"

#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>

#include <fstream>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(ManyWindow, ARosterIsLookedAtAndKeptByOneKey) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    const auto file = walk.folder / "team.csv";
    std::ofstream(file) << "First name,Last name,Born,Throws,Guardian mail\n"
                           "Noor,Ade,2011-03-09,left,ada@example.org\n"
                           "Ivo,Brand,3/9/2011,right,\n";
    d.window().takeInFiles({QString::fromStdString(file.string())});
    QDialog* dialog = test::opened(d, "roster");
    ASSERT_TRUE(dialog);
    EXPECT_EQ(dialog->findChild<ui::RowList*>("roster-rows")->rows().size(), 2U);
    EXPECT_EQ(test::cutIn(dialog), "");
    EXPECT_EQ(walk.library->athletes()->size(), 1U); // nothing happens unasked
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return walk.library->athletes()->size() == 2; }));
}

TEST(ManyWindow, AnOutingIsEnteredWithTheRestThatGuidanceAsksFor) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    auto* enter = d.window().findChild<QPushButton*>("outing-enter");
    ASSERT_TRUE(enter);
    enter->click();
    QDialog* dialog = test::opened(d, "outing");
    ASSERT_TRUE(dialog);
    d.type(dialog->findChild<QLineEdit*>("pitches"), "54,5");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(dialog->isVisible()); // a half pitch is none
    dialog->findChild<QLineEdit*>("pitches")->clear();
    d.type(dialog->findChild<QLineEdit*>("pitches"), "54");
    d.type(dialog->findChild<QLineEdit*>("felt"), "Elbow hurts a bit");
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    const auto says = [&](const QString& words) {
        return waitFor([&] {
            for (const QLabel* l : d.window().findChildren<QLabel*>())
                if (l->text().contains(words)) return true;
            return false;
        });
    };
    EXPECT_TRUE(says("54 pitches"));
    EXPECT_TRUE(says("of rest"));
    EXPECT_TRUE(says("may speak of pain"));
    ASSERT_EQ(walk.library->athlete(walk.athlete.id)->outings.size(), 1U);
}

TEST(ManyWindow, AllReadyLettersGoAfterOneLook) {
    Walk walk;
    Review r = *walk.library->review(walk.review.id);
    r.stops.clear(), r.takes.clear();
    r.stage = Stage::Send;
    ASSERT_TRUE(walk.library->save(r));
    Review second = r;
    ASSERT_TRUE(test::put(*walk.library, test::onceMore(walk.submission, "second", &second)));
    second.id = {"rev-second"};
    second.revision = 0;
    ASSERT_TRUE(walk.library->save(second));
    test::TempFolder post;
    SmtpServer office{QString::fromStdString(post.path().string())};
    ASSERT_TRUE(office.listen(0));
    ASSERT_TRUE(walk.library->setSetting("mail.url", "smtp://127.0.0.1:" + std::to_string(office.port())));
    ASSERT_TRUE(walk.library->setSetting("mail.takeBackS", "0"));
    Driver d(walk.library->folder());
    d.key(Qt::Key_P, Qt::AltModifier);
    d.window().findChild<QPushButton*>("send-all-ready")->click();
    QDialog* dialog = test::opened(d, "send-all");
    ASSERT_TRUE(dialog);
    ASSERT_TRUE(waitFor([&] { return dialog->findChildren<QCheckBox*>().size() == 2; }, 20000));
    QTest::qWait(60); // laid out
    EXPECT_EQ(test::cutIn(dialog), "");
    auto* go = dialog->findChild<QPushButton*>("send-all-go");
    EXPECT_TRUE(go->text().contains("2 letters")) << go->text().toStdString();
    dialog->findChildren<QCheckBox*>()[0]->setChecked(false);
    EXPECT_TRUE(go->text().contains("1 letter")) << go->text().toStdString();
    dialog->findChildren<QCheckBox*>()[0]->setChecked(true);
    QTest::keyClick(dialog, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor(
        [&] { return dialog->findChild<QLabel*>("send-all-state")->text().startsWith("2 of 2 went out"); },
        120000))
        << dialog->findChild<QLabel*>("send-all-state")->text().toStdString();
    for (const char* id : {"rev-second"}) EXPECT_TRUE(walk.library->review({id})->sent);
    EXPECT_TRUE(walk.library->review(walk.review.id)->sent);
    dialog->close();
}

} // namespace
} // namespace jg
