// SPDX-License-Identifier: GPL-3.0-or-later
// The store's door: changes of the newest row, never a document from an old copy; lists whose entries are
// rows.
#include "library/library.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <fstream>
#include <set>
#include <thread>

namespace jg {
namespace {

namespace fs = std::filesystem;

struct Shelf {
    test::TempFolder folder;
    std::unique_ptr<Library> library;
    Submission submission;
    Shelf() {
        library = std::move(*Library::open(folder / "lib", true, std::make_shared<FileStore>()));
        Athlete a;
        a.id = {"ath-1"};
        a.firstName = "Wren";
        a.lastName = "Castellane";
        a.born = *parseIsoDate("2013-03-09");
        a.consent = Consent{true, true, false, "Ruth", true, test::today(), {}, {}};
        EXPECT_TRUE(library->add(a));
        std::ofstream(folder / "film.mp4") << "pretend film";
        submission.id = {"sub-1"};
        submission.athlete = a.id;
        submission.received = test::today();
        Clip c;
        c.id = {"clip-1"};
        c.athlete = a.id;
        c.mediaHash = *library->addMedia(folder / "film.mp4");
        submission.clips = {c};
        EXPECT_TRUE(library->add(submission));
    }
    std::unique_ptr<Library> again() const { return std::move(*library->again()); }
};

TEST(Change, WhatIsHeldIsNeverWrittenBack) {
    Shelf s;
    const auto other = s.again();
    const Athlete held = *other->athlete({"ath-1"}); // a window that was open all the time
    ASSERT_TRUE(s.library->change({"ath-1"}, [](Athlete& a) -> Status {
        a.consent->takenBack = test::today();
        return Done{};
    }));
    ASSERT_TRUE(other->change(held.id, [](Athlete& a) -> Status {
        a.level = "14U";
        return Done{};
    }));
    const Athlete now = *s.library->athlete({"ath-1"});
    EXPECT_TRUE(now.consent->takenBack);
    EXPECT_EQ(now.level, "14U");
}

TEST(Change, ARefusedOneLeavesTheRowAsItWas) {
    Shelf s;
    const Athlete before = *s.library->athlete({"ath-1"});
    const auto refused = s.library->change(before.id, [](Athlete& a) -> Status {
        a.level = "half";
        return fail(ErrorCode::Refused, asIs("No."));
    });
    EXPECT_EQ(refused.error().code, ErrorCode::Refused);
    EXPECT_EQ(*s.library->athlete({"ath-1"}), before);
    // Nor is anything written that could not be read again.
    EXPECT_EQ(s.library->change(before.id, [](Athlete& a) -> Status { return a.born = Date{}, Done{}; })
                  .error()
                  .code,
              ErrorCode::BadInput);
    EXPECT_EQ(s.library->change(before.id, [](Athlete& a) -> Status { return a.level = "\xff", Done{}; })
                  .error()
                  .code,
              ErrorCode::BadInput);
    EXPECT_EQ(*s.library->athlete({"ath-1"}), before);
    EXPECT_EQ(
        s.library->change(AthleteId{"ath-none"}, [](Athlete&) -> Status { return Done{}; }).error().code,
        ErrorCode::NotFound);
    EXPECT_TRUE(s.library->verify().empty());
}

TEST(Change, AnIdStaysAndIsGivenOnce) {
    Shelf s;
    const auto changed =
        s.library->change({"ath-1"}, [](Athlete& a) -> Status { return a.id = {"ath-2"}, Done{}; });
    ASSERT_TRUE(changed);
    EXPECT_EQ(changed->id.value, "ath-1");
    Athlete twin = *s.library->athlete({"ath-1"});
    EXPECT_EQ(s.library->add(twin).error().code, ErrorCode::Refused);
    for (const char* none : {"", "x/../../precious", "..", "a b"}) {
        twin.id = {none};
        EXPECT_EQ(s.library->add(twin).error().code, ErrorCode::Refused) << none;
    }
    Submission theirs = s.submission; // a clip of that id is somebody's
    theirs.id = {"sub-2"};
    EXPECT_EQ(s.library->add(theirs).error().code, ErrorCode::Refused);
    Review r;
    r.id = {"../x"};
    r.submission = s.submission.id;
    r.athlete = s.submission.athlete;
    EXPECT_FALSE(s.library->save(r));
}

TEST(Change, ASubmissionKeepsItsFilms) {
    Shelf s;
    EXPECT_FALSE(
        s.library->change({"sub-1"}, [](Submission& sub) -> Status { return sub.clips.clear(), Done{}; }));
    EXPECT_FALSE(s.library->change({"sub-1"}, [](Submission& sub) -> Status {
        return sub.clips[0].mediaHash = std::string(64, 'a'), Done{};
    }));
    const auto seen = s.library->change({"sub-1"}, {"clip-1"}, [](Clip& c) -> Status {
        c.frames = 120;
        c.check = {asIs("Dark.")};
        return Done{};
    });
    ASSERT_TRUE(seen);
    EXPECT_EQ(s.library->submission({"sub-1"})->clips[0].frames, 120);
    EXPECT_EQ(s.library->submission({"sub-1"})->clips[0].check.size(), 1U);
}

TEST(Change, ARosterIsAllOrNone) {
    Shelf s;
    const Athlete wren = *s.library->athlete({"ath-1"});
    Athlete fresh = wren, typed = wren, meanwhile = wren;
    fresh.id = {"ath-2"};
    typed.level = "mine";
    ASSERT_TRUE(s.library->change(wren.id, [](Athlete& a) -> Status { return a.level = "theirs", Done{}; }));
    EXPECT_EQ(s.library->add({fresh}, {{wren, typed}}).error().code, ErrorCode::Stale);
    EXPECT_EQ(*s.library->athleteCount(), 1);
    typed = wren;
    typed.email = "wren@example.org";
    ASSERT_TRUE(s.library->add({fresh}, {{wren, typed}}));
    EXPECT_EQ(*s.library->athleteCount(), 2);
    EXPECT_EQ(s.library->athlete(wren.id)->level, "theirs");
    EXPECT_EQ(s.library->athlete(wren.id)->email, "wren@example.org");
}

TEST(Change, ThreeProgramsScheduleAtOnceAndEachEntryIsThere) {
    Shelf s;
    constexpr int kEach = 150;
    const auto schedule = [&](int program) {
        const auto own = s.again();
        for (int i = 0; i < kEach; ++i)
            EXPECT_TRUE(own->put(ListOf::DueMails,
                                 "mail-" + std::to_string(program) + "-" + std::to_string(i),
                                 R"({"at": 5, "tries": 0})"));
    };
    {
        const std::jthread a([&] { schedule(1); }), b([&] { schedule(2); }), c([&] { schedule(3); });
    }
    EXPECT_EQ(s.library->rows(ListOf::DueMails)->size(), 3U * kEach);
    EXPECT_TRUE(s.library->verify().empty());
}

TEST(Lists, AnEntryIsPutChangedAndDroppedAndOrderIsKept) {
    Shelf s;
    for (int list = 0; list < kListCount; ++list) {
        const auto which = static_cast<ListOf>(list);
        for (const char* key : {"a", "b", "c"}) ASSERT_TRUE(s.library->put(which, key, "{}"));
        ASSERT_TRUE(s.library->put(which, "b", R"({"n": 1})"));
        ASSERT_TRUE(s.library->drop(which, "a"));
        EXPECT_TRUE(s.library->drop(which, "never"));
        const auto rows = *s.library->rows(which);
        ASSERT_EQ(rows.size(), 2U) << tableOf(which);
        EXPECT_EQ(rows[0].key, "b");
        EXPECT_EQ(rows[0].document, R"({"n": 1})");
        EXPECT_FALSE(s.library->row(which, "a")->has_value());
        const Status refused = s.library->changeRows(which, [](std::vector<ListEntry>& all) -> Status {
            all.clear();
            return fail(ErrorCode::Refused, asIs("No."));
        });
        EXPECT_FALSE(refused);
        EXPECT_EQ(s.library->rows(which)->size(), 2U);
        ASSERT_TRUE(s.library->changeRows(which, [](std::vector<ListEntry>& all) -> Status {
            all.erase(all.begin());
            all.push_back({0, "d", "{}"});
            all.front().document = "[]";
            return Done{};
        }));
        const auto after = *s.library->rows(which);
        ASSERT_EQ(after.size(), 2U);
        EXPECT_EQ(after[0].key, "c");
        EXPECT_EQ(after[0].document, "[]");
        EXPECT_EQ(after[1].key, "d");
    }
    EXPECT_TRUE(s.library->verify().empty());
}

TEST(Change, WhatOthersWroteIsSeen) {
    Shelf s;
    const auto other = s.again();
    const std::int64_t before = s.library->writesOfOthers();
    const Pulse was = *s.library->pulse();
    ASSERT_TRUE(s.library->setSetting("mine", "1"));
    EXPECT_EQ(s.library->writesOfOthers(), before);
    ASSERT_TRUE(other->change({"ath-1"}, [](Athlete& a) -> Status { return a.level = "14U", Done{}; }));
    EXPECT_NE(s.library->writesOfOthers(), before);
    const Pulse now = *s.library->pulse();
    std::set<std::string> changed;
    for (const auto& [table, n] : now)
        if (was.at(table) != n) changed.insert(table);
    EXPECT_EQ(changed, (std::set<std::string>{"athletes", "settings"}));
}

TEST(Change, OneBadRowHidesNothing) {
    Shelf s;
    Review r;
    r.id = {"rev-1"};
    r.submission = s.submission.id;
    r.athlete = s.submission.athlete;
    r.date = test::today();
    r.first().clip = s.submission.clips[0].id;
    const Assessment none;
    ASSERT_TRUE(s.library->save(r, &none));
    {
        SQLite::Database db((s.folder / "lib/library.sqlite").string(), SQLite::OPEN_READWRITE);
        for (const char* trigger : {"clips_changed", "results_changed", "reviews_changed"})
            db.exec(std::string("DROP TRIGGER ") + trigger);
        db.exec("UPDATE clips SET survey = '{'");
        db.exec("UPDATE results SET document = '{'");
        db.exec("UPDATE reviews SET summary = '{'");
    }
    const auto waiting = s.library->waiting();
    ASSERT_TRUE(waiting);
    ASSERT_EQ(waiting->size(), 1U) << "a film check emptied the desk";
    EXPECT_TRUE(waiting->front().review);
    EXPECT_FALSE(s.library->takeLeftOut().empty());
    EXPECT_EQ(s.library->submissions()->size(), 1U);
    ASSERT_EQ(s.library->reviewsOf({"ath-1"})->size(), 1U);
    EXPECT_FALSE(s.library->reviewsOf({"ath-1"})->front().results);
    EXPECT_EQ(s.library->reviews()->size(), 1U);
    EXPECT_TRUE(s.library->submission({"sub-1"}));
}

} // namespace
} // namespace jg
