// SPDX-License-Identifier: GPL-3.0-or-later
// Letters that go out later: at their time, once, and again with growing pauses while nobody answers.
#include "desk/sending/due_mails.h"

#include "apps/post_office/smtp_server.h"
#include "base/clock.h"
#include "base/time_zone.h"
#include "desk/keeping/house_zone.h"
#include "tests/support/walk.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>

#include <thread>

namespace jg {
namespace {

using test::Walk;

/// A clock that is moved by hand, on the day of the tests.
class MovedClock final : public Clock {
public:
    std::int64_t now = FixedClock(test::today()).nowUnix();
    std::int64_t nowUnix() const override { return now; }
    Date today() const override { return test::today(); }
    std::string timeOfDay() const override { return "12:00"; }
};

class DueMails : public testing::Test {
protected:
    void SetUp() override { test::leaveUnsaid(walk); }

    void open() {
        ASSERT_TRUE(office.listen(0));
        order = {{"smtp://127.0.0.1:" + std::to_string(office.port()), "", "", false, 20},
                 "ilse@example.org"};
    }

    OutboxItem laid(int afterS) {
        const auto recipe = dispatchRecipe(*walk.session());
        EXPECT_TRUE(recipe) << said(recipe.error().text);
        const auto item = sendLater(*walk.library, *recipe, clock.now + afterS, clock, walk.ids);
        EXPECT_TRUE(item) << said(item.error().text);
        return *item;
    }

    Status handOver(const OutboxItem& item) {
        std::optional<Status> result;
        std::thread thread([&] {
            auto own = walk.library->again();
            result = sendDue(**own, test::playbook(), item, order, clock);
        });
        while (!result) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
        thread.join();
        return *result;
    }

    std::vector<OutboxItem> due() { return *mailsDueAt(*walk.library, clock.now); }
    int mails() const { return static_cast<int>(QDir(post()).entryList({"*.eml"}).size()); }
    QString post() const { return QString::fromStdString((walk.folder / "post").string()); }

    Walk walk;
    MovedClock clock;
    SmtpServer office{post()};
    SendOrder order{{"smtp://127.0.0.1:1", "", "", false, 5}, "ilse@example.org"};
};

TEST_F(DueMails, GoOutAtTheirTimeAndOnce) {
    open();
    const OutboxItem item = laid(3600);
    EXPECT_EQ(item.state, MailState::Ready);
    EXPECT_TRUE(due().empty());
    clock.now += 3599;
    EXPECT_TRUE(due().empty());
    clock.now += 1;
    ASSERT_EQ(due().size(), 1U);
    EXPECT_TRUE(handOver(due().front()));
    EXPECT_EQ(mails(), 1);
    EXPECT_TRUE(due().empty());
    EXPECT_TRUE(dueMails(*walk.library).empty());
    EXPECT_FALSE(handOver(item)); // sent is sent
    EXPECT_EQ(mails(), 1);
}

TEST_F(DueMails, AreTriedAgainWithGrowingPausesWhileNobodyAnswers) {
    laid(10);
    clock.now += 10;
    std::int64_t before = 0;
    for (const int minutes : {1, 5, 15, 60, 240, 240}) {
        ASSERT_EQ(due().size(), 1U);
        EXPECT_FALSE(handOver(due().front()));
        EXPECT_TRUE(due().empty());
        const DueMail next = dueMails(*walk.library).begin()->second;
        EXPECT_EQ(next.at - clock.now, minutes * 60);
        EXPECT_GE(next.at - clock.now, before);
        before = next.at - clock.now;
        clock.now = next.at;
    }
    open(); // somebody answers at last
    ASSERT_EQ(due().size(), 1U);
    EXPECT_TRUE(handOver(due().front()));
    EXPECT_EQ(mails(), 1);
    EXPECT_TRUE(dueMails(*walk.library).empty());
}

TEST_F(DueMails, WhatMayNoLongerGoWaitsForAHand) {
    open();
    laid(10);
    clock.now += 10;
    walk.athlete.consent->takenBack = test::today();
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    const Status sent = handOver(due().front());
    ASSERT_FALSE(sent);
    EXPECT_EQ(sent.error().code, ErrorCode::Refused);
    EXPECT_EQ(mails(), 0);
    EXPECT_TRUE(dueMails(*walk.library).empty());
    EXPECT_EQ(walk.library->outbox()->size(), 1U); // nothing is lost
}

TEST_F(DueMails, AnEntryThatCantBeReadMakesNothingDue) {
    laid(10);
    clock.now += 100;
    const std::string mail = walk.library->outbox()->at(0).id;
    for (const char* broken : {"", "{", "[]", R"({"x": 3})", R"({"at": "soon"})", R"({"at": 1e300})"}) {
        ASSERT_TRUE(walk.library->put(ListOf::DueMails, mail, broken));
        EXPECT_TRUE(due().empty()) << broken;
    }
    EXPECT_EQ(walk.library->outbox()->size(), 1U);
}

TEST(TimeFromWords, IsTheNextThatComes) {
    ASSERT_TRUE(useTimeZone("Europe/Berlin"));
    const std::int64_t now = 1796066100; // 30 November 2026, 20:15 there, by `date -d @1796066100`
    const auto read = [&](const char* words) -> std::string {
        const auto at = timeFromWords(words, now);
        return at ? isoDate(civilAt(*at).date) + " " + clockWords(civilAt(*at)) : std::string();
    };
    EXPECT_EQ(read("21:30"), "2026-11-30 21:30");
    EXPECT_EQ(read("7:05"), "2026-12-01 07:05");
    EXPECT_EQ(read(" Tomorrow 7:00 "), "2026-12-01 07:00");
    EXPECT_EQ(read("2026-12-24 18:00"), "2026-12-24 18:00");
    for (const char* none : {"", "soon", "25:00", "7", "today 7:00", "2026-11-29 18:00", "2026-13-01 7:00"})
        EXPECT_EQ(read(none), "") << none;
    ASSERT_TRUE(useTimeZone(""));
}

} // namespace
} // namespace jg
