// SPDX-License-Identifier: GPL-3.0-or-later
// Two windows, or a window and another program, on one library: what changes elsewhere arrives, and nobody
// writes an old copy back; a window that is closed at any moment ends its jobs before what they use.
#include "apps/post_office/smtp_server.h"
#include "library/contents.h"
#include "tests/ui/driver.h"
#include "ui/places/athletes/athletes_place.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QTcpServer>
#include <QTcpSocket>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

constexpr int kSeenMs = 2000; ///< as promised
constexpr int kTurnMs = 500;  ///< a busy machine's own

TEST(TwoWindows, WhatChangesElsewhereArrivesWithinTwoSeconds) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    ReviewSession& session = d.review().session();
    const auto other = std::move(*walk.library->again()); // another program
    ASSERT_TRUE(other->change(walk.athlete.id, [](Athlete& a) -> Status {
        a.consent = Consent{true, true, true, "Ruth", true, test::today(), {}, test::today()}; // taken back
        return Done{};
    }));
    ASSERT_TRUE(other->change(walk.submission.id,
                              [](Submission& s) -> Status { return s.pain = "My elbow hurts.", Done{}; }));
    EXPECT_TRUE(waitFor(
        [&] { return session.athlete().consent && session.athlete().consent->takenBack && session.pain(); },
        kSeenMs + kTurnMs));
    ASSERT_TRUE(other->setSetting("house.coach", "Somebody else"));
    EXPECT_TRUE(waitFor([&] { return session.house().coach == "Somebody else"; }, kSeenMs + kTurnMs));
    // At the desk lists are read again.
    d.key(Qt::Key_Backspace);
    d.settle();
    ASSERT_TRUE(other->add(Promise{walk.athlete.id, asIs("A film from the front"), test::today()}));
    EXPECT_TRUE(waitFor(
        [&] {
            for (const QLabel* label : d.window().findChildren<QLabel*>())
                if (label->isVisible() && label->text().contains("A film from the front")) return true;
            return false;
        },
        kSeenMs + kTurnMs));
}

TEST(TwoWindows, TheSameFieldChangedTwiceIsToldAndBothAreShown) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    auto* place = d.window().findChild<ui::AthletesPlace*>();
    place->choose(walk.athlete.id);
    d.settle();
    place->editCurrent();
    QDialog* dialog = test::opened(d, "athlete-dialog");
    ASSERT_TRUE(dialog);
    ASSERT_TRUE(walk.library->change(walk.athlete.id, [](Athlete& a) -> Status {
        a.level = "theirs";
        a.guardianName = "Ruth Brandt";
        return Done{};
    }));
    auto* level = dialog->findChild<QLineEdit*>("level");
    ASSERT_TRUE(level);
    level->setText("mine");
    auto* keep = d.button(dialog, "Keep");
    d.click(keep);
    auto* problem = dialog->findChild<QLabel*>("athlete-problem");
    EXPECT_TRUE(dialog->isVisible());
    EXPECT_TRUE(problem->text().contains("theirs") && problem->text().contains("mine"))
        << problem->text().toStdString();
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->level, "theirs");
    d.click(keep); // on purpose
    EXPECT_TRUE(waitFor([&] { return walk.library->athlete(walk.athlete.id)->level == "mine"; }));
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->guardianName,
              "Ruth Brandt"); // the other field stays theirs
}

/// Takes connections and says nothing.
struct Silent {
    QTcpServer server;
    std::vector<QTcpSocket*> open;
    Silent() {
        EXPECT_TRUE(server.listen(QHostAddress::LocalHost));
        QObject::connect(&server, &QTcpServer::newConnection, &server,
                         [this] { open.push_back(server.nextPendingConnection()); });
    }
};

// Closing while the post sent ended in a crash in seven of eight: the job used the window's clock after it
// was gone.
TEST(TwoWindows, AWindowThatIsClosedWhileThePostSendsEndsTheJobFirst) {
    Walk walk;
    test::leaveUnsaid(walk);
    Silent nobody;
    ASSERT_TRUE(walk.library->setSetting("mail.url",
                                         "smtp://127.0.0.1:" + std::to_string(nobody.server.serverPort())));
    ASSERT_TRUE(walk.library->setSetting("mail.from", "ilse@example.org"));
    ASSERT_TRUE(walk.library->setSetting("mail.takeBackS", "0"));
    ASSERT_TRUE(walk.library->files().write(walk.library->sentPath("mail-1.eml"), "Subject: x\r\n\r\n"));
    ASSERT_TRUE(walk.library->add(OutboxItem{"mail-1",
                                             walk.review.id,
                                             walk.athlete.guardianEmail,
                                             "Hello",
                                             "mail-1.eml",
                                             MailState::Refused,
                                             {},
                                             walk.clock.nowUnix()}));
    for (const int afterMs : {0, 30, 120, 400, 1200, 3000}) {
        auto d = std::make_unique<Driver>(walk.library->folder());
        d->key(Qt::Key_P, Qt::AltModifier);
        d->settle();
        auto* send = d->button(&d->window(), "Send now");
        if (!send) send = d->button(&d->window(), "Send it again");
        ASSERT_TRUE(send) << afterMs;
        d->click(send);
        QTest::qWait(afterMs);
        d.reset();
        const auto item = walk.library->mail("mail-1");
        ASSERT_TRUE(item) << afterMs;
        EXPECT_NE(item->state, MailState::Sent) << afterMs;
        EXPECT_NE(item->state, MailState::HandingOver)
            << "the outbox does not know how it ended, after " << afterMs;
    }
    EXPECT_TRUE(std::filesystem::is_empty(folderIn(walk.library->folder(), LibraryFolder::Work)));
}

} // namespace
} // namespace jg
