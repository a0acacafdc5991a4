// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/date.h"
#include "base/file_store.h"
#include "base/ids.h"
#include "tests/support/core.h"

#include <fstream>
#include <sys/stat.h>
#include <unistd.h>

namespace jg {
namespace {

TEST(Date, ReadsAndWritesIso) {
    const auto d = parseIsoDate("2026-11-25");
    ASSERT_TRUE(d);
    EXPECT_EQ(isoDate(*d), "2026-11-25");
    EXPECT_EQ(longDate(*d), "25 November");
    EXPECT_EQ(weekdayName(*d), "Wednesday");
    for (const char* wrong : {"2026-02-30", "26-11-25", "2026/11/25", "", "2026-13-01", "abcd-ef-gh"})
        EXPECT_FALSE(parseIsoDate(wrong)) << wrong;
}

TEST(Date, CountsDaysAcrossAYear) {
    EXPECT_EQ(daysBetween(*parseIsoDate("2026-12-30"), *parseIsoDate("2027-01-02")), 3);
    EXPECT_EQ(isoDate(addDays(*parseIsoDate("2028-02-28"), 1)), "2028-02-29");
}

TEST(Ids, TheSameSeedGivesTheSameIds) {
    IdSource a(5), b(5), c(6);
    const auto first = a.next<ReviewTag>("rev");
    EXPECT_EQ(first, b.next<ReviewTag>("rev"));
    EXPECT_NE(first, c.next<ReviewTag>("rev"));
    EXPECT_EQ(first.value.rfind("rev-", 0), 0U);
}

TEST(FileStore, ACopyHasTheSameBytesAndItsHolesStayHoles) {
    const test::TempFolder folder;
    FileStore files;
    const auto from = folder / "from", to = folder / "to";
    for (const std::string& text : {std::string(), std::string("a"), std::string(3 << 20, 'b')}) {
        ASSERT_TRUE(files.write(from, text));
        ASSERT_TRUE(files.copy(from, to));
        EXPECT_EQ(*readFile(to), text);
    }
    std::ofstream(from) << "head";
    std::filesystem::resize_file(from, 64 << 20);
    std::ofstream(from, std::ios::app) << "tail";
    ASSERT_TRUE(files.copy(from, to));
    EXPECT_EQ(*readFile(to), *readFile(from));
    struct stat facts {};
    ASSERT_EQ(::stat(to.c_str(), &facts), 0);
    EXPECT_LT(facts.st_blocks * 512, 1 << 20);
    EXPECT_EQ(facts.st_mode & 0777, 0600U);
    for (const auto& wrong : {folder / "nowhere", folder.path()}) {
        const Status copied = files.copy(wrong, to);
        ASSERT_FALSE(copied);
        EXPECT_EQ(copied.error().code, ErrorCode::Unreadable);
    }
    EXPECT_EQ(std::filesystem::file_size(to), (64U << 20) + 4); // as it was
}

TEST(FileStore, WritesWholeFilesAndLeavesNoNeighbour) {
    const test::TempFolder folder;
    FileStore files;
    ASSERT_TRUE(files.write(folder / "a.txt", "one"));
    ASSERT_TRUE(files.write(folder / "a.txt", "two"));
    EXPECT_EQ(*readFile(folder / "a.txt"), "two");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);
}

TEST(FileStore, AFailedMakeLeavesTheOldFile) {
    const test::TempFolder folder;
    FileStore files;
    ASSERT_TRUE(files.write(folder / "a.txt", "old"));
    const Status made = files.publish(folder / "a.txt", [](const std::filesystem::path& t) -> Status {
        std::ofstream(t) << "half";
        return fail(ErrorCode::Cancelled, asIs("Stopped."));
    });
    EXPECT_FALSE(made);
    EXPECT_EQ(*readFile(folder / "a.txt"), "old");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);
}

TEST(FileStore, AFullDiskIsSaidAndNothingStays) {
    if (!std::filesystem::exists("/dev/full")) GTEST_FAIL() << "this system has no /dev/full";
    const Error e = writeError("/x/film.mp4", ENOSPC);
    EXPECT_EQ(e.code, ErrorCode::DiskFull);
    EXPECT_NE(said(e.text).find("film.mp4"), std::string::npos);
    EXPECT_NE(said(e.text).find("Make room"), std::string::npos);
}

TEST(FileStore, OnlyTheOwnerReadsWhatIsWritten) {
    const test::TempFolder folder;
    FileStore files;
    ASSERT_TRUE(files.write(folder / "a.txt", "one"));
    EXPECT_EQ(std::filesystem::status(folder / "a.txt").permissions(),
              std::filesystem::perms::owner_read | std::filesystem::perms::owner_write);
}

TEST(FileStore, WhatIsNoOrdinaryFileIsNeitherReplacedNorRead) {
    namespace fs = std::filesystem;
    const test::TempFolder folder;
    FileStore files;
    ASSERT_TRUE(files.write(folder / "there.txt", "kept"));
    fs::create_symlink(folder / "there.txt", folder / "link.txt");
    ASSERT_EQ(::mkfifo((folder / "pipe.txt").c_str(), 0600), 0);
    for (const fs::path& path : {folder / "link.txt", folder / "pipe.txt", fs::path("/dev/null")}) {
        const auto before = fs::symlink_status(path).type();
        const Status written = files.write(path, "new");
        ASSERT_FALSE(written) << path;
        EXPECT_EQ(written.error().code, ErrorCode::Refused);
        EXPECT_EQ(fs::symlink_status(path).type(), before) << path;
    }
    EXPECT_EQ(*readFile(folder / "there.txt"), "kept");
    EXPECT_EQ(readFile(folder / "pipe.txt").error().code, ErrorCode::Unreadable)
        << "and it is not waited for";
}

TEST(FileStore, MissingFilesAndFoldersAreRefused) {
    const test::TempFolder folder;
    EXPECT_EQ(readFile(folder / "none").error().code, ErrorCode::NotFound);
    EXPECT_EQ(readFile(folder.path()).error().code, ErrorCode::Unreadable);
    FileStore files;
    EXPECT_FALSE(files.copy(folder / "none", folder / "copy"));
    EXPECT_FALSE(std::filesystem::exists(folder / "copy"));
}

} // namespace
} // namespace jg
