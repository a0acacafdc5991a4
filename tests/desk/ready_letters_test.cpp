// SPDX-License-Identifier: GPL-3.0-or-later
// All ready letters looked at and sent: each through the check of its own moment, none because of another.
#include "desk/sending/ready_letters.h"

#include "apps/post_office/smtp_server.h"
#include "tests/support/walk.h"

#include <atomic>
#include <set>
#include <thread>

namespace jg {
namespace {

using test::Walk;

/// Reviews of one athlete that stand at Send, without a film so that they are quick to make.
class ReadyLetters : public testing::Test {
protected:
    void SetUp() override {
        Review r = *walk.library->review(walk.review.id);
        r.stops.clear(), r.takes.clear();
        r.stage = Stage::Send;
        ASSERT_TRUE(walk.library->save(r));
        for (const char* name : {"second", "third"}) add(name, r);
        ASSERT_TRUE(walk.library->setSetting("mail.from", "ilse@example.org"));
    }

    void add(const std::string& name, Review r) {
        ASSERT_TRUE(test::put(*walk.library, test::onceMore(walk.submission, name, &r)));
        r.id = {"rev-" + name};
        r.revision = 0;
        r.date = addDays(r.date, -static_cast<int>(name.size()));
        ASSERT_TRUE(walk.library->save(r));
    }

    void harm(const ReviewId& id) {
        Review r = *walk.library->review(id);
        r.judging().grades.clear();
        ASSERT_TRUE(walk.library->save(r));
    }

    std::vector<ReadyLetter> look() { return *readyLetters(*walk.library, test::playbook(), walk.clock); }

    std::vector<SentLetter> sendThem(const std::vector<ReadyLetter>& letters, int port,
                                     std::stop_token stop = {}) {
        const SendOrder order{{"smtp://127.0.0.1:" + std::to_string(port), "", "", false},
                              "ilse@example.org"};
        const auto own = *walk.library->again(); // as in a thread of its own
        return sendAll(*own, test::playbook(), letters, order, walk.clock, walk.ids, stop);
    }

    Walk walk;
};

TEST_F(ReadyLetters, TellWhoGetsWhatAndWhyOneCannotGo) {
    harm({"rev-second"});
    const auto letters = look();
    ASSERT_EQ(letters.size(), 3U);
    EXPECT_TRUE(std::is_sorted(letters.begin(), letters.end(),
                               [](const auto& a, const auto& b) { return a.date < b.date; }));
    for (const ReadyLetter& l : letters) {
        EXPECT_EQ(l.athlete, walk.athlete.fullName());
        EXPECT_EQ(l.toAddress, walk.athlete.guardianEmail);
        EXPECT_TRUE(l.toGuardian);
        EXPECT_EQ(l.corrections, walk.review.plan.corrections.size());
        EXPECT_EQ(l.notYet.empty(), l.review.value != "rev-second") << said(l.notYet);
    }
}

TEST_F(ReadyLetters, GoOutOneAfterTheOtherAndARefusedOneStopsNoOther) {
    const auto letters = look();
    harm({"rev-second"}); // after the look
    test::TempFolder post;
    SmtpServer office{QString::fromStdString(post.path().string())};
    ASSERT_TRUE(office.listen(0));
    std::vector<SentLetter> sent;
    std::atomic<bool> done = false;
    const int port = office.port();
    std::jthread sending([&] {
        sent = sendThem(letters, port);
        done = true;
    });
    ASSERT_TRUE(test::turnUntil([&] { return done.load(); }, 60000)); // the server answers in this thread
    std::size_t mails = 0;
    for (const auto& e : std::filesystem::directory_iterator(post.path()))
        mails += e.path().extension() == ".eml";
    EXPECT_EQ(mails, 2U);
    ASSERT_EQ(sent.size(), 3U);
    for (const SentLetter& s : sent) {
        const bool harmed = s.review.value == "rev-second";
        EXPECT_EQ(static_cast<bool>(s.result), !harmed) << s.review.value;
        EXPECT_EQ(walk.library->review(s.review)->sent.has_value(), !harmed);
    }
    EXPECT_EQ(walk.library->outbox()->size(), 2U); // what the check refuses does not lie in the outbox
    const auto left = look();
    ASSERT_EQ(left.size(), 1U); // what was sent is not offered again
    EXPECT_EQ(left[0].review.value, "rev-second");
}

TEST_F(ReadyLetters, AServerThatDoesNotAnswerLeavesEachInTheOutbox) {
    const auto sent = sendThem(look(), 1);
    ASSERT_EQ(sent.size(), 3U);
    for (const SentLetter& s : sent) {
        ASSERT_FALSE(s.result);
        EXPECT_FALSE(said(s.result.error().text).empty());
        EXPECT_FALSE(walk.library->review(s.review)->sent);
    }
    std::set<std::string> waiting;
    const auto outbox = walk.library->outbox();
    for (const OutboxItem& i : *outbox) {
        EXPECT_EQ(i.state, MailState::Refused);
        waiting.insert(i.review.value);
    }
    EXPECT_EQ(waiting.size(), 3U);
}

TEST_F(ReadyLetters, AnAddressThatChangedAfterTheLookIsAskedAbout) {
    const auto letters = look();
    Athlete moved = walk.athlete;
    moved.guardianEmail = "new.home@example.org";
    ASSERT_TRUE(test::put(*walk.library, moved));
    for (const SentLetter& s : sendThem(letters, 1)) {
        ASSERT_FALSE(s.result);
        EXPECT_NE(said(s.result.error().text).find("new.home@example.org"), std::string::npos);
    }
    EXPECT_TRUE(walk.library->outbox()->empty());
}

TEST_F(ReadyLetters, ACancelLeavesTheRestUnsent) {
    std::stop_source stop;
    stop.request_stop();
    EXPECT_TRUE(sendThem(look(), 1, stop.get_token()).empty());
    EXPECT_TRUE(walk.library->outbox()->empty());
}

} // namespace
} // namespace jg
