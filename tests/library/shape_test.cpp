// SPDX-License-Identifier: GPL-3.0-or-later
// What a library's folder and database may look like: nothing of a stranger's is opened, nothing leads out of
// it.
#include "library/library.h"
#include "library/schema.h"
#include "tests/support/fixtures.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <chrono>
#include <fstream>
#include <limits>

namespace jg {
namespace {

namespace fs = std::filesystem;

fs::path made(const test::TempFolder& folder) {
    const fs::path lib = folder / "lib";
    EXPECT_TRUE(Library::open(lib, true, std::make_shared<FileStore>()));
    return lib;
}

Result<std::unique_ptr<Library>> openedAt(const fs::path& lib, bool create = false) {
    return Library::open(lib, create, std::make_shared<FileStore>());
}

void sql(const fs::path& lib, const std::string& text) {
    SQLite::Database db((lib / "library.sqlite").string(), SQLite::OPEN_READWRITE);
    db.exec(text);
}

TEST(Shape, ASchemaThatNoVersionWroteIsRefusedAtOnce) {
    for (const int version :
         {std::numeric_limits<int>::min(), -1, 6, 1 << 20, std::numeric_limits<int>::max(), 0, 1, 2, 3, 4}) {
        const test::TempFolder folder;
        const fs::path lib = made(folder);
        sql(lib, "PRAGMA user_version = " + std::to_string(version));
        const auto begun = std::chrono::steady_clock::now();
        const auto refused = openedAt(lib);
        EXPECT_FALSE(refused) << version;
        EXPECT_LT(std::chrono::steady_clock::now() - begun, std::chrono::seconds(5))
            << version; // it was ten minutes
        const SQLite::Database db((lib / "library.sqlite").string(), SQLite::OPEN_READONLY);
        EXPECT_EQ(const_cast<SQLite::Database&>(db).execAndGet("PRAGMA user_version").getInt(), version);
    }
}

TEST(Shape, WhatAStrangerPutIntoTheSchemaIsNamed) {
    for (const char* change :
         {"CREATE TRIGGER evil AFTER UPDATE ON athletes BEGIN DELETE FROM clips; END",
          "CREATE VIEW evil AS SELECT 1", "CREATE TABLE evil (x)", "CREATE INDEX evil ON athletes(name)",
          "DROP INDEX clips_by_media", "DROP TRIGGER athletes_changed",
          "ALTER TABLE athletes ADD COLUMN evil TEXT"}) {
        const test::TempFolder folder;
        const fs::path lib = made(folder);
        sql(lib, change);
        const auto refused = openedAt(lib);
        ASSERT_FALSE(refused) << change;
        EXPECT_EQ(refused.error().code, ErrorCode::Damaged);
        const std::string told = said(refused.error().text);
        EXPECT_TRUE(told.find("evil") != told.npos || told.find("clips_by_media") != told.npos ||
                    told.find("athletes") != told.npos)
            << told;
    }
    const test::TempFolder folder;
    EXPECT_TRUE(openedAt(made(folder)));
}

TEST(Shape, AnEmptiedLibraryIsNotANewOne) {
    const test::TempFolder folder;
    const fs::path lib = made(folder);
    std::ofstream(lib / "media" / std::string(64, 'a')) << "a film";
    for (const char* beside : {"", "-wal", "-shm"})
        fs::remove(lib / (std::string("library.sqlite") + beside));
    std::ofstream(lib / "library.sqlite").close();
    const auto refused = openedAt(lib, true);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::Damaged);
    fs::remove(lib / "media" / std::string(64, 'a'));
    EXPECT_TRUE(openedAt(lib, true)); // one that was killed while it was made
}

TEST(Shape, AFolderOfItThatIsALinkIsRefusedAndAFileIsTold) {
    for (const char* name :
         {"media", "takes", "sent", "scrub", "work", "set-aside", "post-office", "library.sqlite"}) {
        const test::TempFolder folder;
        const fs::path lib = made(folder), elsewhere = folder / "elsewhere";
        if (fs::exists(lib / name))
            fs::rename(lib / name, elsewhere);
        else
            fs::create_directories(elsewhere);
        fs::create_symlink(elsewhere, lib / name);
        const auto refused = openedAt(lib);
        ASSERT_FALSE(refused) << name;
        EXPECT_NE(said(refused.error().text).find(name), std::string::npos) << said(refused.error().text);
    }
    const test::TempFolder folder;
    const fs::path lib = made(folder);
    std::ofstream(folder / "precious.txt") << "precious";
    fs::create_symlink(folder / "precious.txt", lib / "takes" / "take.wav");
    const auto library = std::move(*openedAt(lib));
    const auto problems = *library->examine();
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_NE(said(problems[0].text).find("link"), std::string::npos);
    EXPECT_TRUE(library->repair(problems[0])); // the link itself goes aside
    EXPECT_EQ(*readFile(folder / "precious.txt"), "precious");
    EXPECT_TRUE(library->examine()->empty());
}

TEST(Shape, AStrangersFileAtTheTopIsTold) {
    const test::TempFolder folder;
    const fs::path lib = made(folder);
    std::ofstream(lib / "notes.txt") << "x";
    fs::last_write_time(lib / "notes.txt", fs::file_time_type::clock::now() - std::chrono::hours(2));
    const auto problems = *std::move(*openedAt(lib))->examine();
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_NE(said(problems[0].text).find("notes.txt"), std::string::npos);
}

TEST(WorkFolder, IsItsOwnersAndGoesWithItsJobOrTheNextStart) {
    const test::TempFolder folder;
    const fs::path lib = made(folder);
    auto first = *WorkFolder::make(lib), second = *WorkFolder::make(lib);
    EXPECT_NE(first->path(), second->path());
    EXPECT_EQ(fs::status(first->path()).permissions(), fs::perms::owner_all);
    std::ofstream(first->path() / "film.mp4") << "x";
    EXPECT_EQ(WorkFolder::sweep(lib), 0); // both are at work
    const fs::path was = first->path();
    first.reset();
    EXPECT_FALSE(fs::exists(was));
    fs::create_directories(lib / "work" / "job-killed"); // of a program that is gone
    std::ofstream(lib / "work" / "job-killed" / "letter.pdf") << "x";
    EXPECT_EQ(WorkFolder::sweep(lib), 1);
    EXPECT_FALSE(fs::exists(lib / "work" / "job-killed"));
    EXPECT_TRUE(fs::exists(second->path()));
    std::ofstream(folder / "precious") << "precious";
    fs::create_symlink(folder.path(), lib / "work" / "link");
    EXPECT_EQ(WorkFolder::sweep(lib), 1);
    EXPECT_TRUE(fs::exists(folder / "precious")); // of a link only the link goes
}

TEST(Contents, NoNameLeadsOut) {
    for (const char* name : {"../x", "a/b", "", "..", "/etc/passwd", ".hidden"}) {
        EXPECT_EQ(takeFile(name), "") << name;
        EXPECT_EQ(letterFile(name), "") << name;
        EXPECT_EQ(filmFile(name), "") << name;
    }
    EXPECT_EQ(filmFile(std::string(64, 'a')), "media/" + std::string(64, 'a'));
    EXPECT_FALSE(isInside("a/../b"));
    EXPECT_FALSE(isInside("/a"));
    EXPECT_TRUE(isInside("media/x"));
    const test::TempFolder folder;
    const auto library = std::move(*openedAt(made(folder)));
    EXPECT_FALSE(fs::exists(library->takePath("../library.sqlite")));
    EXPECT_FALSE(fs::exists(library->sentPath("../library.sqlite")));
}

} // namespace
} // namespace jg
