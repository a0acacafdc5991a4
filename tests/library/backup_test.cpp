// SPDX-License-Identifier: GPL-3.0-or-later
// Backup, what a kill leaves of it, bringing it back, and an athlete deleted whole.
#include "library/backup.h"
#include "tests/support/walk.h"

#include <nlohmann/json.hpp>

#include <atomic>
#include <filesystem>
#include <fstream>
#include <sys/stat.h>
#include <thread>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::Walk;

constexpr std::int64_t kNow = 1795000000;

std::size_t objectsIn(const fs::path& folder) {
    std::size_t n = 0;
    for (const auto& e : fs::recursive_directory_iterator(folder / "objects")) n += e.is_regular_file();
    return n;
}

/// Every file of a folder by its path within it, the database's own files left out.
std::map<std::string, std::string> contentsOf(const fs::path& folder) {
    std::map<std::string, std::string> all;
    for (const char* sub : {"media", "takes", "sent"})
        for (const auto& e : fs::directory_iterator(folder / sub))
            all[std::string(sub) + "/" + e.path().filename().string()] = *contentHash(e.path());
    return all;
}

TEST(Backup, CopiesOnceWhatIsNewAndComesBackTheSame) {
    Walk walk(Stage::Judge);
    const fs::path to = walk.folder / "backup";
    const auto first = backUp(*walk.library, to, kNow);
    ASSERT_TRUE(first) << said(first.error().text);
    EXPECT_GT(first->copiedBytes, 100000U);
    const std::size_t objects = objectsIn(to);
    const auto second = backUp(*walk.library, to, kNow + 60);
    ASSERT_TRUE(second);
    // Only the database may be another: the first backup left its day there.
    EXPECT_LE(objectsIn(to), objects + 1);
    EXPECT_LT(second->copiedBytes, first->copiedBytes);
    EXPECT_EQ(backupStates(to)->size(), 2U);
    EXPECT_EQ(backupStates(to)->front().at, second->at);
    EXPECT_TRUE(checkBackup(to, *second)->empty());
    FileStore files;
    const fs::path back = walk.folder / "back";
    const auto restored = restoreBackup(to, *second, back, files);
    ASSERT_TRUE(restored) << said(restored.error().text);
    EXPECT_EQ(contentsOf(back), contentsOf(walk.library->folder()));
    auto opened = Library::open(back, false, std::make_shared<FileStore>());
    ASSERT_TRUE(opened);
    EXPECT_TRUE((*opened)->examine()->empty());
    EXPECT_EQ((*opened)->review(walk.review.id)->deliveries,
              walk.library->review(walk.review.id)->deliveries);
}

TEST(Backup, TwoAtOnceIntoOneFolderLeaveNoStateThatIsNotWhole) {
    Walk walk(Stage::Judge);
    const fs::path to = walk.folder / "backup";
    std::atomic<int> made = 0;
    const auto backUpMany = [&](int from) {
        const auto library = walk.library->again();
        ASSERT_TRUE(library);
        constexpr int kWanted = 5, kMostTries = 4000;
        for (int i = 0, done = 0; done < kWanted && i < kMostTries; ++i) {
            // Something that is new in each database.
            ASSERT_TRUE((*library)->setSetting("test." + std::to_string(from), std::to_string(i)));
            const auto state = backUp(**library, to, kNow + from * 10000 + i);
            if (state) {
                ++made, ++done;
                continue;
            }
            EXPECT_EQ(state.error().code, ErrorCode::Refused) << said(state.error().text);
            std::this_thread::sleep_for(std::chrono::milliseconds(5)); // the other one is at it
        }
    };
    {
        const std::jthread first([&] { backUpMany(1); }), second([&] { backUpMany(2); });
    }
    EXPECT_EQ(made, 10);
    const auto states = backupStates(to);
    ASSERT_TRUE(states);
    EXPECT_EQ(states->size(), static_cast<std::size_t>(made));
    for (const BackupState& state : states->states) {
        const auto problems = checkBackup(to, state);
        ASSERT_TRUE(problems);
        EXPECT_TRUE(problems->empty()) << state.at << ": " << said(problems->front());
    }
}

/// Breaks a backup off after a third; gives how many of its files are there.
std::size_t breakOff(Library& library, const fs::path& to) {
    std::stop_source stop;
    const auto broken = backUp(library, to, kNow, stop.get_token(), [&](double part) {
        if (part > 0.3) stop.request_stop();
    });
    EXPECT_FALSE(broken);
    EXPECT_EQ(broken.error().code, ErrorCode::Cancelled);
    EXPECT_TRUE(backupStates(to)->empty()); // a part is no backup
    return objectsIn(to);
}

TEST(Backup, GoesOnWhereItWasBrokenOff) {
    Walk walk(Stage::Judge);
    for (int i = 0; i < 4; ++i) // more films than one
        std::ofstream(walk.library->folder() / "takes" / ("take" + std::to_string(i) + ".wav"))
            << std::string(100000, static_cast<char>('a' + i));
    const fs::path to = walk.folder / "backup";
    const std::size_t kept = breakOff(*walk.library, to);
    EXPECT_GT(kept, 1U);
    const auto whole = backUp(*walk.library, to, kNow + 60);
    ASSERT_TRUE(whole);
    EXPECT_GT(objectsIn(to), kept);
    std::uint64_t all = 0;
    for (const BackedFile& f : whole->files) all += f.bytes;
    EXPECT_LT(whole->copiedBytes, all); // what was there was not copied again
    EXPECT_TRUE(checkBackup(to, *whole)->empty());
}

/// What a folder takes of the disk, which holes do not.
std::uintmax_t bytesOnDisk(const fs::path& folder) {
    std::uintmax_t all = 0;
    for (const auto& e : fs::recursive_directory_iterator(folder)) {
        struct stat facts {};
        if (e.is_regular_file() && ::stat(e.path().c_str(), &facts) == 0)
            all += static_cast<std::uintmax_t>(facts.st_blocks) * 512;
    }
    return all;
}

// A hundred gigabytes with JUXTAGRAPH_LONG, which reads them all; else little.
TEST(Backup, GigabytesOfHolesGoOnWhereTheyWereBrokenOffAndStayHoles) {
    const int count = std::getenv("JUXTAGRAPH_LONG") ? 100 : 4;
    const std::uintmax_t each = std::getenv("JUXTAGRAPH_LONG") ? std::uintmax_t{1} << 30 : 1 << 24;
    Walk walk(Stage::Judge);
    for (int i = 0; i < count; ++i) {
        const fs::path file = walk.library->folder() / "takes" / ("hole" + std::to_string(i) + ".wav");
        std::ofstream(file) << i;
        fs::resize_file(file, each);
    }
    const fs::path to = walk.folder / "backup";
    const std::size_t kept = breakOff(*walk.library, to);
    EXPECT_GT(kept, static_cast<std::size_t>(count) / 5);
    const auto whole = backUp(*walk.library, to, kNow + 60);
    ASSERT_TRUE(whole) << said(whole.error().text);
    EXPECT_LT(whole->copiedBytes, static_cast<std::uint64_t>(count) * each * 4 / 5); // the rest was there
    EXPECT_LT(bytesOnDisk(to),
              static_cast<std::uintmax_t>(count) * each / 2); // the film and the database are no holes
    const auto problems = checkBackup(to, *whole);
    ASSERT_TRUE(problems);
    EXPECT_TRUE(problems->empty());
}

TEST(Backup, RefusesPlacesThatAreNone) {
    Walk walk(Stage::Look);
    const auto inside = backUp(*walk.library, walk.library->folder() / "media" / "b", kNow);
    ASSERT_FALSE(inside);
    EXPECT_EQ(inside.error().code, ErrorCode::Refused);
    EXPECT_FALSE(fs::exists(walk.library->folder() / "media" / "b"));
    const fs::path other = walk.folder / "other";
    fs::create_directories(other);
    std::ofstream(other / "letter.txt") << "mine";
    EXPECT_EQ(backUp(*walk.library, other, kNow).error().code, ErrorCode::Refused);
    EXPECT_EQ(backupStates(other).error().code, ErrorCode::NotFound);
    const auto state = backUp(*walk.library, walk.folder / "backup", kNow);
    ASSERT_TRUE(state);
    FileStore files;
    EXPECT_EQ(restoreBackup(walk.folder / "backup", *state, other, files).error().code, ErrorCode::Refused);
    EXPECT_TRUE(fs::exists(other / "letter.txt"));
}

TEST(Backup, WhatIsAlteredInItIsFoundAndNotBroughtBack) {
    Walk walk(Stage::Judge);
    const fs::path to = walk.folder / "backup";
    const auto state = backUp(*walk.library, to, kNow);
    ASSERT_TRUE(state);
    const BackedFile& film = state->files.back();
    const fs::path object = to / "objects" / film.sha256.substr(0, 2) / film.sha256;
    {
        std::fstream f(object, std::ios::in | std::ios::out | std::ios::binary);
        f.seekp(100);
        f.put('!');
    }
    EXPECT_EQ(checkBackup(to, *state)->size(), 1U);
    FileStore files;
    // The rest comes back, and the film is named.
    const auto restored = restoreBackup(to, *state, walk.folder / "back", files);
    ASSERT_TRUE(restored) << said(restored.error().text);
    ASSERT_EQ(restored->notes.size(), 1U);
    EXPECT_NE(said(restored->notes.front()).find(film.path), std::string::npos);
    EXPECT_FALSE(fs::exists(walk.folder / "back" / film.path));
    const auto opened = Library::open(walk.folder / "back", false, std::make_shared<FileStore>());
    ASSERT_TRUE(opened);
    EXPECT_TRUE((*opened)->review(walk.review.id));
    // The next backup makes it anew.
    const auto next = backUp(*walk.library, to, kNow + 60);
    ASSERT_TRUE(next);
    EXPECT_TRUE(checkBackup(to, *next)->empty());
}

TEST(Backup, AListThatLeadsOutOfTheLibraryIsRefused) {
    Walk walk(Stage::Look);
    const fs::path to = walk.folder / "backup";
    const auto state = backUp(*walk.library, to, kNow);
    ASSERT_TRUE(state);
    for (const char* path : {"../x", "/etc/x", "media/../../x", "", "a\\\\b"}) {
        auto list = nlohmann::json::parse(*readFile(to / "states" / (state->at + ".json")));
        list["files"][0]["path"] = path;
        std::ofstream(to / "states" / (state->at + ".json")) << list.dump();
        const auto states = backupStates(to);
        ASSERT_TRUE(states);
        EXPECT_TRUE(states->empty()) << path;
        EXPECT_EQ(states->unreadable.size(), 1U) << path;
    }
}

TEST(Forget, NothingOfAnAthleteStaysAndOthersAreWhole) {
    Walk walk(Stage::Send);
    Athlete other = walk.athlete;
    other.id = {"ath-other"};
    other.firstName = "Somebody";
    other.lastName = "Else";
    ASSERT_TRUE(test::put(*walk.library, other));
    const auto before = walk.library->belongingsOf(walk.athlete.id);
    ASSERT_TRUE(before);
    EXPECT_EQ(before->reviews, 1);
    EXPECT_EQ(before->submissions, 1);
    ASSERT_GT(before->files.size(), 2U);
    const auto left = walk.library->forgetAthlete(walk.athlete.id, test::today());
    ASSERT_TRUE(left) << said(left.error().text);
    EXPECT_TRUE(left->empty());
    for (const std::string& file : before->files)
        EXPECT_FALSE(fs::exists(walk.library->folder() / file)) << file;
    EXPECT_EQ(walk.library->athlete(walk.athlete.id).error().code, ErrorCode::NotFound);
    EXPECT_TRUE(walk.library->athlete(other.id));
    EXPECT_TRUE(walk.library->examine()->empty());
    // Not in a free page of the database, nor in its log either.
    const std::string name = walk.athlete.lastName;
    ASSERT_GT(name.size(), 4U);
    for (const auto& e : fs::recursive_directory_iterator(walk.library->folder()))
        if (e.is_regular_file()) {
            EXPECT_EQ(readFile(e.path())->find(name), std::string::npos) << e.path();
        }
    const auto records = walk.library->rows(ListOf::Forgotten);
    ASSERT_TRUE(records);
    ASSERT_EQ(records->size(), 1U); // what and when, but not who
    EXPECT_EQ(records->front().key, forgottenKey(walk.athlete.id));
    EXPECT_EQ(records->front().document.find(walk.athlete.id.value), std::string::npos);
    EXPECT_EQ(walk.library->forgetAthlete(walk.athlete.id, test::today()).error().code, ErrorCode::NotFound);
}

TEST(Forget, ABackupThatStillHoldsThemIsNamed) {
    Walk walk(Stage::Look);
    ASSERT_TRUE(backUp(*walk.library, walk.folder / "backup", kNow));
    const auto left = walk.library->forgetAthlete(walk.athlete.id, test::today());
    ASSERT_TRUE(left);
    ASSERT_EQ(left->size(), 1U);
    EXPECT_NE(said(left->front()).find("backup"), std::string::npos);
}

} // namespace
} // namespace jg
