// SPDX-License-Identifier: GPL-3.0-or-later
// Backups that came from elsewhere: states that were altered, with paths that lead out, other children's
// films, links, and bytes at random. Nothing outside of where they are brought back is touched, and what is
// here stays.
#include "library/backup.h"
#include "tests/support/walk.h"

#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>
#include <random>

namespace jg {
namespace {

namespace fs = std::filesystem;
using nlohmann::json;
using test::Walk;

constexpr std::int64_t kAttackedAt = 1795000000;

/// Every file below a folder with its content; links by where they lead.
std::map<std::string, std::string> filesIn(const fs::path& folder) {
    std::map<std::string, std::string> all;
    for (const auto& e : fs::recursive_directory_iterator(folder)) {
        const std::string name = fs::relative(e.path(), folder).string();
        if (e.is_symlink())
            all[name] = fs::read_symlink(e.path()).string();
        else if (e.is_regular_file() && !name.ends_with("-shm") && !name.ends_with("-wal"))
            all[name] = *contentHash(e.path());
    }
    return all;
}

/// A backup of one library, attacked again and again; another library and a folder beside it must stay.
struct Attacked {
    Walk walk{Stage::Send};
    fs::path good = walk.folder / "good", bad = walk.folder / "bad", back = walk.folder / "back";
    fs::path precious = walk.folder / "precious";
    std::string statePath;
    json state;

    Attacked() {
        EXPECT_TRUE(backUp(*walk.library, good, kAttackedAt));
        fs::create_directories(precious);
        std::ofstream(precious / "letter.txt") << "precious";
        for (const auto& e : fs::directory_iterator(good / "states"))
            statePath = "states/" + e.path().filename().string();
        state = json::parse(*readFile(good / statePath));
    }

    void begin() {
        std::error_code ec;
        fs::remove_all(bad, ec);
        fs::remove_all(back, ec);
        fs::copy(good, bad, fs::copy_options::recursive);
    }
    void write(const json& changed) { std::ofstream(bad / statePath) << changed.dump(); }
    void writeText(const std::string& changed) {
        std::ofstream(bad / statePath, std::ios::binary) << changed;
    }

    /// Does with it all that a program does with a backup. How many states could be read.
    int use() {
        FileStore files;
        const auto states = backupStates(bad);
        int read = 0;
        if (states)
            for (const BackupState& s : states->states) {
                ++read;
                (void)checkBackup(bad, s);
                if (const auto restored = restoreBackup(bad, s, back, files)) {
                    // What came back is a library that says what is wrong with it.
                    if (auto library = Library::open(back, false, std::make_shared<FileStore>()))
                        (void)(*library)->examine();
                }
                std::error_code ec;
                fs::remove_all(back, ec);
            }
        (void)backUp(*walk.library, bad, kAttackedAt + 60);
        return read;
    }
};

TEST(BackupAttack, AlteredStatesTouchNothingElse) {
    const int rounds = std::getenv("JUXTAGRAPH_LONG") ? 5000 : 30;
    Attacked a;
    const auto library = filesIn(a.walk.library->folder() / "media"), precious = filesIn(a.precious);
    std::mt19937 dice(31);
    const std::string text = a.state.dump();
    int read = 0;
    for (int i = 0; i < rounds; ++i) {
        a.begin();
        if (i % 3 == 0) { // bytes of an object
            std::vector<fs::path> objects;
            for (const auto& e : fs::recursive_directory_iterator(a.bad / "objects"))
                if (e.is_regular_file()) objects.push_back(e.path());
            std::string bytes = *readFile(objects[dice() % objects.size()]);
            for (int k = 0; k < 4 && !bytes.empty(); ++k)
                bytes[dice() % bytes.size()] = static_cast<char>(dice());
            std::ofstream(objects[dice() % objects.size()], std::ios::binary) << bytes;
        } else { // characters of the state
            std::string mutated = text;
            for (int k = 0; k < 1 + static_cast<int>(dice() % 4); ++k)
                mutated[dice() % mutated.size()] = static_cast<char>(32 + dice() % 95);
            if (dice() % 5 == 0) mutated.resize(dice() % mutated.size());
            a.writeText(mutated);
        }
        read += a.use();
        ASSERT_EQ(filesIn(a.walk.library->folder() / "media"), library) << i;
        ASSERT_EQ(filesIn(a.precious), precious) << i;
    }
    EXPECT_TRUE(a.walk.library->verify().empty());
    RecordProperty("statesRead", read);
}

TEST(BackupAttack, PathsAndLinksNeverLeadOut) {
    const int rounds = std::getenv("JUXTAGRAPH_LONG") ? 500 : 30;
    Attacked a;
    const auto library = filesIn(a.walk.library->folder() / "media"), precious = filesIn(a.precious);
    const std::vector<std::string> paths = {"../precious/letter.txt",
                                            "/etc/passwd",
                                            "media/../../precious/letter.txt",
                                            "",
                                            ".",
                                            "..",
                                            "a\\b",
                                            "media",
                                            "library.sqlite/x",
                                            "work/../../x",
                                            std::string(5000, 'a'),
                                            "media/\n",
                                            ".part-1-2-x",
                                            "sent/../library.sqlite"};
    const std::vector<std::string> hashes = {
        "../../precious/letter.txt", "", "..", std::string(64, '0'), std::string(64, 'g'), "/etc/passwd"};
    std::mt19937 dice(32);
    for (int i = 0; i < rounds; ++i) {
        a.begin();
        json d = a.state;
        json& file = d["files"][dice() % d["files"].size()];
        const int kind = static_cast<int>(dice() % 5);
        if (kind == 0) file["path"] = paths[dice() % paths.size()];
        if (kind == 1) file["sha256"] = hashes[dice() % hashes.size()];
        if (kind == 2) d["files"].push_back(file), d["files"].back()["path"] = paths[dice() % paths.size()];
        if (kind == 3)
            std::swap(file["sha256"], d["files"][dice() % d["files"].size()]["sha256"]); // another's film
        if (kind == 4) { // a link where an object or a folder was
            std::error_code ec;
            const fs::path at = dice() % 2 ? a.bad / "objects" : a.bad / "states";
            fs::remove_all(at, ec);
            fs::create_directory_symlink(a.precious, at, ec);
        } else {
            a.write(d);
        }
        a.use();
        ASSERT_EQ(filesIn(a.walk.library->folder() / "media"), library) << i << " kind " << kind;
        ASSERT_EQ(filesIn(a.precious), precious) << i << " kind " << kind;
    }
    EXPECT_TRUE(a.walk.library->verify().empty());
}

TEST(BackupAttack, AConsentThatWasTakenBackStaysSo) {
    Walk walk{Stage::Look};
    const fs::path to = walk.folder / "backup";
    const auto before = backUp(*walk.library, to, kAttackedAt);
    ASSERT_TRUE(before);
    ASSERT_TRUE(walk.library->change(walk.athlete.id, [](Athlete& a) -> Status {
        a.consent->takenBack = test::today();
        return Done{};
    }));
    ASSERT_TRUE(backUp(*walk.library, to, kAttackedAt + 60));
    FileStore files;
    const fs::path back = walk.folder / "back";
    const auto restored = restoreBackup(to, *before, back, files);
    ASSERT_TRUE(restored) << said(restored.error().text);
    ASSERT_EQ(restored->notes.size(), 1U);
    EXPECT_NE(said(restored->notes.front()).find("Odalys"), std::string::npos);
    const auto library = Library::open(back, false, std::make_shared<FileStore>());
    ASSERT_TRUE(library);
    EXPECT_TRUE((*library)->athlete(walk.athlete.id)->consent->takenBack);
    EXPECT_TRUE((*library)->verify().empty());
}

} // namespace
} // namespace jg
