// SPDX-License-Identifier: GPL-3.0-or-later
// Promises: made by a letter, due, kept or not, and over again in a library of an older version.
#include "desk/sending/promises.h"

#include "desk/pages/desk_list.h"
#include "tests/support/walk.h"

#include <SQLiteCpp/SQLiteCpp.h>

namespace jg {
namespace {

using test::Walk;

std::vector<Promise> openOf(Library& library) {
    auto open = library.openPromises(addDays(test::today(), 400));
    EXPECT_TRUE(open);
    return *open;
}

TEST(Promises, ALetterPromisesALookDrillsAndAFilm) {
    Walk walk;
    const auto made = promisesOfLetter(walk.review, walk.athlete, test::today());
    ASSERT_EQ(made.size(), 3U);
    for (const Promise& p : made) {
        EXPECT_EQ(p.due, walk.review.plan.nextLook);
        EXPECT_EQ(p.made, test::today());
        EXPECT_EQ(p.review, walk.review.id);
    }
    EXPECT_EQ(made[0].owes, Owes::House);
    EXPECT_EQ(made[1].owes, Owes::Athlete);
    Review none = walk.review;
    none.plan.nextLook.reset();
    EXPECT_TRUE(promisesOfLetter(none, walk.athlete, test::today()).empty());
}

TEST(Promises, AreKeptOrNotOnRecordAndNeverTwice) {
    Walk walk;
    for (const Promise& p : promisesOfLetter(walk.review, walk.athlete, test::today()))
        ASSERT_TRUE(test::put(*walk.library, p));
    const auto open = openOf(*walk.library);
    ASSERT_EQ(open.size(), 3U);
    ASSERT_TRUE(closePromise(*walk.library, open[0].row, Kept::Broken, "Ill for a week.", test::today()));
    ASSERT_TRUE(closePromise(*walk.library, open[0].row, Kept::Kept, "", addDays(test::today(), 1)));
    EXPECT_EQ(openOf(*walk.library).size(), 2U);
    const auto all = walk.library->promisesTo(walk.athlete.id);
    ASSERT_TRUE(all);
    const auto ended = std::find_if(all->begin(), all->end(), [](const Promise& p) { return !p.open(); });
    ASSERT_NE(ended, all->end());
    EXPECT_EQ(ended->kept, Kept::Broken);
    EXPECT_EQ(endInWords(*ended), "not kept, 25 November: Ill for a week.");
    EXPECT_EQ(ended->review, walk.review.id);
    EXPECT_EQ(closePromise(*walk.library, 999, Kept::Kept, "", test::today()).error().code,
              ErrorCode::NotFound);
}

TEST(Promises, SayWhenTheyAreDue) {
    Promise p{{"ath-1"}, asIs("Drills"), test::today()};
    EXPECT_EQ(dueInWords(p, test::today()), "due today");
    EXPECT_EQ(dueInWords(p, addDays(test::today(), 1)), "1 day late");
    EXPECT_EQ(dueInWords(p, addDays(test::today(), -2)), "due 25 November");
    p.due.reset();
    EXPECT_TRUE(dueInWords(p, test::today()).empty());
}

TEST(Promises, OneThatCantBeReadHidesNoOther) {
    Walk walk;
    for (const Promise& p : promisesOfLetter(walk.review, walk.athlete, test::today()))
        ASSERT_TRUE(test::put(*walk.library, p));
    {
        SQLite::Database db((walk.library->folder() / "library.sqlite").string(), SQLite::OPEN_READWRITE);
        db.exec("PRAGMA ignore_check_constraints = 1; DROP TRIGGER promises_changed");
        db.exec("UPDATE promises SET details = '{\"owes\": 5' WHERE row = 2");
    }
    EXPECT_EQ(openOf(*walk.library).size(), 2U);
    EXPECT_EQ(walk.library->takeLeftOut().size(), 1U);
}

} // namespace
} // namespace jg
