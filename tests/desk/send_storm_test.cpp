// SPDX-License-Identifier: GPL-3.0-or-later
// A program that sends letters is killed at random moments: each letter arrives once, or may have arrived and
// is told so.
#include "apps/post_office/smtp_server.h"
#include "desk/sending/due_mails.h"
#include "tests/support/walk.h"

#include <QDir>
#include <QFile>

#include <csignal>
#include <filesystem>
#include <fstream>
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

pid_t start(const std::filesystem::path& library, const std::string& url,
            std::vector<std::string> more = {}) {
    std::vector<std::string> words = {(test::binFolder() / "send_storm").string(), library.string(), url};
    words.insert(words.end(), more.begin(), more.end());
    std::vector<char*> arguments;
    for (std::string& word : words) arguments.push_back(word.data());
    arguments.push_back(nullptr);
    const pid_t child = ::fork();
    if (child != 0) return child;
    ::execv(arguments[0], arguments.data());
    ::_exit(127);
}

/// Turns the event loop until all have ended; false when one ended badly, or does not end.
bool allEndWell(std::vector<pid_t> children) {
    bool well = true;
    return test::turnUntil(
               [&] {
                   std::erase_if(children, [&](pid_t child) {
                       int status = 0;
                       if (::waitpid(child, &status, WNOHANG) != child) return false;
                       well = well && WIFEXITED(status) && WEXITSTATUS(status) == 0;
                       return true;
                   });
                   return children.empty();
               },
               3600000) &&
           well;
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

/// A review of an athlete of its own, so that no letter tells of another.
void addReader(Walk& walk, int n) {
    const std::string name = "reader-" + std::to_string(n);
    Athlete reader = walk.athlete;
    reader.id = {"ath-" + name};
    reader.firstName = "Reader" + std::to_string(n);
    reader.email = name + "@example.org";
    reader.guardianEmail = name + ".home@example.org";
    ASSERT_TRUE(walk.library->add(reader));
    Review review = walk.review;
    review.id = {"rev-" + name};
    review.revision = 0;
    review.athlete = reader.id;
    Submission films = test::onceMore(walk.submission, name, &review);
    films.athlete = reader.id;
    for (Clip& c : films.clips) {
        c.athlete = reader.id;
        // A film of their own: nobody's is another's.
        const auto mine = walk.folder / (name + ".mp4");
        std::filesystem::copy_file(walk.library->mediaPath(walk.submission.clips[0]), mine);
        std::ofstream(mine, std::ios::app | std::ios::binary)
            << std::string("\0\0\0\x10", 4) << "free" << name;
        const auto hash = walk.library->addMedia(mine);
        ASSERT_TRUE(hash);
        c.mediaHash = *hash;
    }
    ASSERT_TRUE(walk.library->add(films));
    ASSERT_TRUE(walk.library->save(review));
}

// Three programs lay letters ready for the same minute, and three hand them over at once: each goes once,
// none is lost. JUXTAGRAPH_SCHEDULED=450 is the long run.
TEST(SendStorm, ThreeProgramsScheduleAndEachLetterGoesOnce) {
    const char* asked = std::getenv("JUXTAGRAPH_SCHEDULED");
    const int count = asked ? std::atoi(asked) : 9;
    constexpr int kPrograms = 3;
    Walk walk;
    test::leaveUnsaid(walk);
    for (int i = 1; i < count; ++i) addReader(walk, i);
    const QString post = QString::fromStdString((walk.folder / "post").string());
    SmtpServer office{post};
    ASSERT_TRUE(office.listen(0));
    const std::string url = "smtp://127.0.0.1:" + std::to_string(office.port());
    std::vector<pid_t> children;
    for (int i = 0; i < kPrograms; ++i)
        children.push_back(
            start(walk.library->folder(), url, {"schedule", std::to_string(i), std::to_string(kPrograms)}));
    ASSERT_TRUE(allEndWell(children));
    EXPECT_EQ(dueMails(*walk.library).size(), static_cast<std::size_t>(count));
    children.clear();
    for (int i = 0; i < kPrograms; ++i) children.push_back(start(walk.library->folder(), url, {"due"}));
    ASSERT_TRUE(allEndWell(children));
    const auto arrived = arrivedIn(post);
    EXPECT_EQ(arrived.size(), static_cast<std::size_t>(count));
    for (const auto& [review, times] : arrived) EXPECT_EQ(times, 1) << review;
    const auto outbox = walk.library->outbox();
    ASSERT_EQ(outbox->size(), static_cast<std::size_t>(count));
    for (const OutboxItem& item : *outbox) EXPECT_EQ(item.state, MailState::Sent) << said(item.reason);
    EXPECT_TRUE(dueMails(*walk.library).empty());
    EXPECT_TRUE(walk.library->verify().empty()) << walk.library->verify().front();
}

} // namespace
} // namespace jg
