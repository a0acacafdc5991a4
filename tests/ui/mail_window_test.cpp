// SPDX-License-Identifier: GPL-3.0-or-later
// Films that come by mail, in the window: dropped, and lying in the watched folder.
#include "desk/intake/mail_intake.h"
#include "letter/qt_text.h"
#include "post/mail.h"
#include "tests/ui/driver.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QTcpServer>
#include <QTcpSocket>

namespace jg::test {
namespace {

/// A library with one athlete, and a mail from their home with a film.
struct ByMail {
    Walk walk{Stage::Look};
    Mail mail;

    ByMail() {
        Athlete a = walk.athlete;
        a.guardianName = "Ruth Brandt";
        a.guardianEmail = "home@example.org";
        EXPECT_TRUE(test::put(*walk.library, a));
        FilmOrder order = smallOrder();
        order.brightness = 0.7; // another film than the one that is there
        EXPECT_TRUE(makeFilm(order, walk.folder / "new.mp4"));
        mail.fromName = "Ruth Brandt";
        mail.fromAddress = "home@example.org";
        mail.toName = "Ilse Varnholt";
        mail.toAddress = "ilse@example.org";
        mail.subject = "Her pitches";
        mail.text = "Hello Ilse,\n\ndoes she open too soon? Her elbow is sore since Sunday.\n\nRuth\n";
        mail.attachments = {{"IMG 7.mp4", "video/mp4", *readFile(walk.folder / "new.mp4")}};
        mail.messageId = "m7@example.org";
        mail.dateUnix = 1764072000;
    }
    std::filesystem::path lay(const std::filesystem::path& at) {
        FileStore files;
        EXPECT_TRUE(files.write(at, *toBytes(mail)));
        return at;
    }
};

/// What the intake shows of the mail, and that it can be taken in as it stands.
void takeAsItStands(Driver& d, QDialog& dialog) {
    EXPECT_TRUE(dialog.findChild<QLabel*>("mail")->text().contains("home@example.org"));
    EXPECT_EQ(dialog.findChild<QLineEdit*>("asked")->text(), "does she open too soon?");
    EXPECT_EQ(dialog.findChild<QLineEdit*>("pain")->text(), "Her elbow is sore since Sunday.");
    EXPECT_GT(dialog.findChild<QComboBox*>("who")->currentIndex(), 0);
    d.click(d.button(&dialog, "Take in"));
    EXPECT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
}

TEST(MailWindow, ADroppedMailBringsFilmQuestionAndPainToTheRightAthlete) {
    ByMail m;
    const auto file = m.lay(m.walk.folder / "her.eml");
    Driver d(m.walk.library->folder());
    d.drop(QString::fromStdString(file.string()));
    QDialog* dialog = opened(d, "intake");
    ASSERT_TRUE(dialog);
    EXPECT_EQ(cutIn(dialog), "");
    takeAsItStands(d, *dialog);
    const auto all = d.window().library().submissions();
    ASSERT_EQ(all->size(), 2U);
    const auto taken =
        std::find_if(all->begin(), all->end(), [](const Submission& s) { return !s.pain.empty(); });
    ASSERT_NE(taken, all->end());
    EXPECT_EQ(taken->athlete, m.walk.athlete.id);
    EXPECT_EQ(taken->clips.size(), 1U);
    // What was laid out for it is gone.
    EXPECT_TRUE(waitFor([&] {
        return std::filesystem::is_empty(folderIn(d.window().library().folder(), LibraryFolder::Work));
    }));
    // What came in last is what Enter opens, wherever it stands in the queue.
    const SubmissionId id = taken->id;
    d.settle();
    d.window().activateWindow();
    d.key(Qt::Key_Return);
    EXPECT_TRUE(waitFor([&] { return d.review().isVisible() && d.document().submission == id; }));
}

TEST(MailWindow, TheDeskTellsOfTheWatchedFolderAndOpensItsMailsOneByOne) {
    ByMail m;
    const auto box = m.walk.folder / "box";
    std::filesystem::create_directories(box / "new");
    Driver d(m.walk.library->folder());
    d.key(Qt::Key_I, Qt::ControlModifier); // none is watched yet: it asks
    QDialog* form = opened(d, "mail-folder");
    ASSERT_TRUE(form);
    QTest::keyClicks(form->findChild<QLineEdit*>("folder"), "/no/such/folder");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(form->isVisible());
    form->findChild<QLineEdit*>("folder")->setText(text(box.string()));
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    d.settle();
    EXPECT_FALSE(d.window().findChild<QPushButton*>("open-mails"));
    m.lay(box / "new" / "1.thanks");
    Mail noFilm = m.mail;
    noFilm.attachments.clear();
    FileStore files;
    ASSERT_TRUE(files.write(box / "new" / "0.nofilm", *toBytes(noFilm)));
    const auto door = [&] { return d.window().findChild<QPushButton*>("open-mails"); };
    ASSERT_TRUE(waitFor([&] { return door() && door()->isVisible(); })); // by itself
    d.settle();
    d.click(door());
    QDialog* dialog = opened(d, "intake"); // the one without a film is passed
    ASSERT_TRUE(dialog);
    takeAsItStands(d, *dialog);
    EXPECT_EQ(d.window().library().submissions()->size(), 2U);
    EXPECT_TRUE(mailsWaiting(d.window().library()).empty());
}

TEST(MailWindow, AMailThatIsPutAsideIsNotOfferedAgain) {
    ByMail m;
    const auto box = m.walk.folder / "box";
    m.mail.fromAddress = "stranger@example.org";
    m.lay(box / "one.eml");
    ASSERT_TRUE(watchFolder(*m.walk.library, box.string()));
    Driver d(m.walk.library->folder());
    d.key(Qt::Key_I, Qt::ControlModifier);
    QDialog* dialog = opened(d, "intake");
    ASSERT_TRUE(dialog);
    EXPECT_EQ(dialog->findChild<QComboBox*>("who")->currentIndex(), 0); // nobody is guessed
    EXPECT_TRUE(dialog->findChild<QLabel*>("mail")->text().contains("Nobody here"));
    d.click(dialog->findChild<QPushButton*>("put-aside"));
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    EXPECT_TRUE(mailsWaiting(d.window().library()).empty());
    EXPECT_EQ(d.window().library().submissions()->size(), 1U);
}

TEST(MailWindow, AStandInPostOfficeWhosePortIsTakenListensElsewhereAndSaysSo) {
    QTcpServer other; // another program on the usual port, unless one is there already
    other.listen(QHostAddress::LocalHost, 2525);
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().startPostOffice();
    const auto* foot = d.window().findChild<QLabel*>("foot-message");
    ASSERT_TRUE(foot);
    ASSERT_TRUE(waitFor([&] { return foot->text().contains("taken by another program"); }))
        << foot->text().toStdString();
    const int port = foot->text().section("on port ", 1, 1).section('.', 0, 0).toInt();
    EXPECT_GT(port, 2525);
    QTcpSocket client;
    client.connectToHost(QHostAddress::LocalHost, static_cast<quint16>(port));
    EXPECT_TRUE(client.waitForReadyRead(5000));
    EXPECT_TRUE(client.readAll().startsWith("220"));
}

} // namespace
} // namespace jg::test
