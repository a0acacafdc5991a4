// SPDX-License-Identifier: GPL-3.0-or-later
// Windows that are closed while a job runs: by their button, by the system's word, killed. None crashes, and
// the outbox is true at the next start.
#include "apps/post_office/smtp_server.h"
#include "desk/intake/mail_intake.h"
#include "desk/sending/outgoing.h"
#include "post/mail.h"
#include "tests/ui/driver.h"

#include <QDir>
#include <QProcess>

#include <csignal>
#include <fstream>
#include <random>

namespace jg {
namespace {

using test::Walk;

/// A library with everything in it that a job may be begun on, and a post office.
struct Closing {
    Walk walk{Stage::Send};
    QString post = QString::fromStdString((walk.folder / "post").string());
    SmtpServer office{post};
    std::filesystem::path lib = walk.folder / "closing";

    Closing() {
        EXPECT_TRUE(office.listen(0));
        Library& library = *walk.library;
        EXPECT_TRUE(library.setSetting("mail.url", "smtp://127.0.0.1:" + std::to_string(office.port())));
        EXPECT_TRUE(library.setSetting("mail.takeBackS", "0"));
        std::filesystem::create_directories(walk.folder / "mails");
        EXPECT_TRUE(watchFolder(library, (walk.folder / "mails").string()));
        Mail mail;
        mail.fromAddress = "odalys.home@example.org", mail.toAddress = "ilse@example.org";
        mail.subject = "Film", mail.text = "Is it late?";
        mail.attachments = {{"a.mp4", "video/mp4", *readFile(walk.folder / "film.mp4")}};
        std::ofstream(walk.folder / "mails" / "1.eml", std::ios::binary) << *toBytes(mail);
    }

    /// The library as it was, with a letter that waits in the post for "again".
    void begin(const std::string& kind) {
        std::filesystem::remove_all(lib);
        std::filesystem::remove_all(post.toStdString());
        QDir().mkpath(post);
        std::filesystem::copy(walk.library->folder(), lib, std::filesystem::copy_options::recursive);
        if (kind != "again") return;
        auto own = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(own);
        ASSERT_TRUE((*own)->files().write((*own)->sentPath("mail-1.eml"), "Subject: x\r\n\r\n"));
        ASSERT_TRUE((*own)->add(OutboxItem{"mail-1",
                                           walk.review.id,
                                           walk.athlete.guardianEmail,
                                           "Hello",
                                           "mail-1.eml",
                                           MailState::Refused,
                                           {},
                                           walk.clock.nowUnix()}));
    }

    /// Starts a window on the library that begins such a job; what it says of that.
    std::string start(QProcess& window, const std::string& kind, const char* way, int ms) const {
        window.start(
            QString::fromStdString((test::binFolder() / "close_storm").string()),
            {QString::fromStdString(lib.string()), QString::fromStdString(kind), way, QString::number(ms)});
        QByteArray told;
        EXPECT_TRUE(test::waitFor([&] { return (told += window.readAllStandardOutput()).contains('\n'); }))
            << window.readAllStandardError().toStdString();
        return told.trimmed().toStdString();
    }

    /// True for what the outbox says of what arrived.
    void expectTrue(const std::string& how) {
        auto own = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(own) << how;
        (*own)->sweep();
        const auto problems = (*own)->verify();
        EXPECT_TRUE(problems.empty()) << how << ": " << said(problems.front());
        const auto letters = QDir(post).entryList({"*.eml"}).size();
        EXPECT_LE(letters, 1) << how;
        int sent = 0, maybe = 0;
        for (const OutboxItem& item : *(*own)->outbox()) {
            sent += item.state == MailState::Sent;
            maybe += item.state == MailState::HandingOver || item.state == MailState::Unsure;
        }
        if (letters == 0) {
            EXPECT_EQ(sent, 0) << how;
        } else {
            EXPECT_EQ(sent + maybe, 1) << how << ": it went out, and the outbox does not know";
        }
        EXPECT_EQ((*own)->review(walk.review.id)->sent.has_value(), sent == 1) << how;
    }
};

// JUXTAGRAPH_LONG closes twenty windows of each kind in each way.
TEST(Closing, WhileAJobRunsNeverCrashesAndTheOutboxIsTrue) {
    const int rounds = std::getenv("JUXTAGRAPH_LONG") ? 20 : 1;
    Closing c;
    std::mt19937 dice(34);
    int windows = 0, crashes = 0;
    for (const std::string kind : {"send", "again", "watch", "preview", "scrub", "mails"})
        for (const std::string way : {"button", "term", "kill"})
            for (int round = 0; round < rounds; ++round) {
                const bool sends = kind == "send" || kind == "again";
                if (rounds == 1 && !sends && way != (kind == "watch" ? "button" : "term")) continue;
                c.begin(kind);
                const int ms = static_cast<int>(dice() % 1500);
                const std::string how = kind + ", " + way + " after " + std::to_string(ms);
                QProcess window;
                ASSERT_EQ(c.start(window, kind, way == "button" ? "button" : "signal", ms), "began") << how;
                QTest::qWait(ms);
                if (way == "term") ::kill(static_cast<pid_t>(window.processId()), SIGTERM);
                if (way == "kill") window.kill();
                ASSERT_TRUE(test::waitFor([&] { return window.state() == QProcess::NotRunning; }, 60000))
                    << how;
                ++windows;
                const bool crashed =
                    way != "kill" && (window.exitStatus() != QProcess::NormalExit || window.exitCode() != 0);
                crashes += crashed;
                EXPECT_FALSE(crashed)
                    << how << ": " << window.exitCode() << " " << window.readAllStandardError().toStdString();
                QTest::qWait(50); // the post office ends its talk
                c.expectTrue(how);
            }
    std::printf("%d windows, %d crashes\n", windows, crashes);
}

// An intake form with a film in it once asked whether to leave, and the system waited for the answer for
// good.
TEST(Closing, AFormWithAFilmInItDoesNotHoldTheSystemsEndUp) {
    Closing c;
    c.begin("mails");
    QProcess window;
    ASSERT_EQ(c.start(window, "mails", "signal", 0), "began");
    QTest::qWait(4000); // the form stands there, with the mail's film
    ::kill(static_cast<pid_t>(window.processId()), SIGTERM);
    ASSERT_TRUE(test::waitFor([&] { return window.state() == QProcess::NotRunning; }, 20000));
    EXPECT_EQ(window.exitStatus(), QProcess::NormalExit);
    EXPECT_EQ(window.exitCode(), 0);
    c.expectTrue("a form");
}

// The end of the system's patience once only asked the windows again, and one that was busy stayed.
TEST(Closing, AWindowThatDoesNotGoEndsWithThePatience) {
    Closing c;
    c.begin("stays");
    QProcess window;
    ASSERT_EQ(c.start(window, "stays", "signal", 0), "began");
    ::kill(static_cast<pid_t>(window.processId()), SIGTERM);
    ASSERT_TRUE(test::waitFor([&] { return window.state() == QProcess::NotRunning; }, 20000));
    EXPECT_EQ(window.exitStatus(), QProcess::NormalExit);
    EXPECT_EQ(window.exitCode(), 0);
}

} // namespace
} // namespace jg
