// SPDX-License-Identifier: GPL-3.0-or-later
// Names out of sight: from one window on nobody writes to the library, whatever becomes of that window.
#include "base/clock.h"
#include "library/look_lock.h"
#include "tests/support/walk.h"

#include <csignal>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

using test::Walk;

TEST(LookLock, HoldsForEveryStoreAndEndsWithItsOwn) {
    Walk walk{Stage::Send};
    Library& mine = *walk.library;
    const auto other = mine.again();
    ASSERT_TRUE(other);
    ASSERT_TRUE(mine.lookOnly(true));
    for (Library* library : {&mine, other->get()}) {
        EXPECT_FALSE(library->mayWrite());
        EXPECT_FALSE(library->setSetting("a", "b"));
        EXPECT_FALSE(library->add(Promise{walk.athlete.id, asIs("x"), {}}));
        EXPECT_FALSE(library->addMedia(walk.folder / "film.mp4"));
        EXPECT_TRUE(library->athletes()); // it is looked at
    }
    EXPECT_NE(said((*other)->mayWrite().error().text), said(mine.mayWrite().error().text));
    ASSERT_TRUE((*other)->lookOnly(true)); // two windows
    ASSERT_TRUE(mine.lookOnly(false));
    EXPECT_FALSE(mine.setSetting("a", "b"));
    ASSERT_TRUE((*other)->lookOnly(false));
    EXPECT_TRUE(mine.setSetting("a", "b"));
    EXPECT_TRUE(mine.verify().empty()); // what it leaves is a part of a library
}

TEST(LookLock, OfAKilledProgramIsNone) {
    Walk walk{Stage::Look};
    int ready[2];
    ASSERT_EQ(::pipe(ready), 0);
    const pid_t child = ::fork();
    if (child == 0) {
        LookLock lock;
        const char byte = lock.take(walk.library->folder()) ? 'y' : 'n';
        if (::write(ready[1], &byte, 1) != 1) ::_exit(1);
        ::pause();
        ::_exit(0);
    }
    char byte = 0;
    ASSERT_EQ(::read(ready[0], &byte, 1), 1);
    ASSERT_EQ(byte, 'y');
    EXPECT_FALSE(walk.library->setSetting("a", "b"));
    ::kill(child, SIGKILL);
    ::waitpid(child, nullptr, 0);
    EXPECT_TRUE(walk.library->setSetting("a", "b"));
    ::close(ready[0]);
    ::close(ready[1]);
}

TEST(LookLock, WaitsForALetterOnItsWay) {
    Walk walk{Stage::Send};
    const OutboxItem item{"mail-1", walk.review.id,         "a@example.org",
                          "Hello",  "mail-1.eml",           MailState::HandingOver,
                          {},       SystemClock().nowUnix()};
    ASSERT_TRUE(test::put(*walk.library, item));
    const Status refused = walk.library->lookOnly(true);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::Refused);
    EXPECT_TRUE(walk.library->mayWrite());
    ASSERT_TRUE(walk.library->changeMail("mail-1", [](OutboxItem& i) -> Status {
        i.state = MailState::Sent;
        return Done{};
    }));
    EXPECT_TRUE(walk.library->lookOnly(true));
}

} // namespace
} // namespace jg
