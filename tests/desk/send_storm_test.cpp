// A program that sends letters is killed at random moments: each letter arrives once, or may have arrived and
// is told so.
#include "apps/post_office/smtp_server.h"
#include "tests/support/walk.h"

#include <QDir>
#include <QFile>

#include <csignal>
#include <map>
#include <random>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

using test::Walk;

/// JUXTAGRAPH_SENDS=500 is the long run.
int letters() {
    const char* asked = std::getenv("JUXTAGRAPH_SENDS");
    return asked ? std::atoi(asked) : 8;
}

pid_t start(const std::filesystem::path& library, const std::string& url) {
    const std::string program = (test::binFolder() / "send_storm").string();
    const pid_t child = ::fork();
    if (child != 0) return child;
    ::execl(program.c_str(), program.c_str(), library.c_str(), url.c_str(), static_cast<char*>(nullptr));
    ::_exit(127);
}

/// How many mails of each review lie in the post.
std::map<std::string, int> arrivedIn(const QString& post) {
    std::map<std::string, int> all;
    for (const QString& name : QDir(post).entryList({"*.eml"})) {
        QFile mail(QDir(post).filePath(name));
        EXPECT_TRUE(mail.open(QIODevice::ReadOnly));
        for (const QByteArray& line : mail.readAll().split('\n'))
            if (line.toLower().startsWith("message-id:")) {
                const QByteArray id = line.mid(line.indexOf('<') + 1);
                ++all[id.left(id.indexOf('.')).toStdString()];
            }
    }
    return all;
}

/// What the outbox tells, to see that something went on.
std::string toldBy(Library& library) {
    std::string all;
    const auto outbox = library.outbox();
    if (!outbox) return "unreadable";
    for (const OutboxItem& item : *outbox) all += item.id + " " + std::string(idOf(item.state)) + "\n";
    return all;
}

TEST(SendStorm, EachLetterArrivesOnceOrIsToldAsUnsure) {
    Walk walk;
    test::leaveUnsaid(walk);
    for (int i = 1; i < letters(); ++i) test::keepEarlier(walk, std::to_string(i), i);
    const QString post = QString::fromStdString((walk.folder / "post").string());
    SmtpServer office{post};
    ASSERT_TRUE(office.listen(0));
    const std::string url = "smtp://127.0.0.1:" + std::to_string(office.port());
    std::mt19937 engine(29);
    int kills = 0;
    for (bool ended = false; !ended && kills < 20 * letters();) {
        const pid_t child = start(walk.library->folder(), url);
        const std::string before = toldBy(*walk.library);
        int status = 0;
        const auto over = [&] { return ended = ended || ::waitpid(child, &status, WNOHANG) == child; };
        // A kill comes soon after a step was told, so that it falls into the next ones, on any machine.
        ASSERT_TRUE(test::turnUntil([&] { return over() || toldBy(*walk.library) != before; }, 60000));
        if (!ended) test::turnUntil(over, static_cast<int>(engine() % 400));
        if (ended) {
            EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 0);
            break;
        }
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        ++kills;
    }
    EXPECT_GT(kills, letters() / 4);
    std::map<std::string, int> arrived = arrivedIn(post);
    std::map<std::string, MailState> told;
    const auto outbox = walk.library->outbox();
    ASSERT_TRUE(outbox);
    for (const OutboxItem& item : *outbox) {
        EXPECT_FALSE(told.contains(item.review.value) && told[item.review.value] == MailState::Sent);
        told[item.review.value] = item.state;
    }
    ASSERT_EQ(told.size(), static_cast<std::size_t>(letters()));
    int unsure = 0;
    for (const auto& [review, state] : told) {
        EXPECT_LE(arrived[review], 1) << review;
        if (state == MailState::Sent) {
            EXPECT_EQ(arrived[review], 1) << review;
        } else { // what is being handed over by nobody is unsure half an hour later
            EXPECT_TRUE(state == MailState::Unsure || state == MailState::HandingOver) << idOf(state);
            ++unsure;
        }
    }
    RecordProperty("kills", kills);
    RecordProperty("unsure", unsure);
    std::printf("%d letters, %d kills, %d unsure\n", letters(), kills, unsure);
}

} // namespace
} // namespace jg
