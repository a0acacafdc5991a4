// SPDX-License-Identifier: GPL-3.0-or-later
// Four programs edit, say, send, take in, export, back up and migrate on one library and are killed at random
// moments.
#include "library/backup.h"
#include "tests/support/fixtures.h"
#include "tests/support/power_cut.h"

#include <csignal>
#include <fstream>
#include <map>
#include <random>
#include <set>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::TempFolder;

constexpr int kPrograms = 4;

/// JUXTAGRAPH_KILLS=10000 is the long run.
int rounds() {
    const char* asked = std::getenv("JUXTAGRAPH_KILLS");
    return (asked ? std::atoi(asked) : 120) / kPrograms;
}

pid_t start(const fs::path& library, const fs::path& film, const fs::path& log, unsigned seed) {
    const std::string program = (test::binFolder() / "library_storm").string(), number = std::to_string(seed);
    const pid_t child = ::fork();
    if (child != 0) return child;
    ::execl(program.c_str(), program.c_str(), library.c_str(), film.c_str(), log.c_str(), number.c_str(),
            static_cast<char*>(nullptr));
    ::_exit(127);
}

struct Told {
    std::map<std::string, std::pair<std::int64_t, std::string>>
        edits; ///< newest revision of a review and its words
    std::map<std::string, std::pair<std::int64_t, std::string>> takes; ///< newest, and its file
    std::set<std::string> sent, taken, exported;
    std::map<std::string, std::set<std::string>> backups; ///< states by folder
    std::set<std::string> kinds;
    int lines = 0;

    void read(const fs::path& log) {
        std::ifstream in(log);
        for (std::string line; std::getline(in, line);) {
            ++lines;
            std::istringstream words(line);
            std::string what, id, last;
            std::int64_t revision = 0;
            words >> what >> id;
            kinds.insert(what);
            if ((what == "edit" || what == "said") && words >> revision >> last) {
                auto& newest = what == "edit" ? edits[id] : takes[id];
                if (revision > newest.first) newest = {revision, last};
            }
            if (what == "sent") sent.insert(id);
            if (what == "taken") taken.insert(id);
            if (what == "exported") exported.insert(id);
            if (what == "backed" && words >> last) backups[last].insert(id);
        }
    }
};

/// What is exported stands whole at its place, whoever was killed writing it anew.
void expectWholeExports(const fs::path& folder, const Told& told) {
    for (const std::string& path : told.exported) EXPECT_TRUE(fs::exists(path)) << path;
    for (const auto& entry : fs::directory_iterator(folder)) {
        if (entry.path().filename().string().starts_with(".part-")) continue;
        std::ifstream in(entry.path(), std::ios::binary);
        const std::string bytes{std::istreambuf_iterator<char>(in), {}};
        const std::string end = entry.path().extension() == ".pdf" ? "%%EOF" : "END:VCALENDAR";
        EXPECT_NE(bytes.find(end, bytes.size() < 64 ? 0 : bytes.size() - 64), std::string::npos)
            << entry.path();
    }
}

/// Each state that stands is whole, and those that were told stand.
void expectBackups(const Told& told) {
    for (const auto& [folder, ats] : told.backups) {
        const auto states = backupStates(folder);
        ASSERT_TRUE(states) << said(states.error().text);
        std::set<std::string> standing;
        for (const BackupState& state : states->states) {
            standing.insert(state.at);
            const auto problems = checkBackup(folder, state);
            ASSERT_TRUE(problems);
            EXPECT_TRUE(problems->empty()) << said(problems->front());
        }
        for (const std::string& at : ats) EXPECT_TRUE(standing.contains(at)) << at << " in " << folder;
    }
}

/// The newest state of a backup is a library again.
void expectRestored(const Told& told, const fs::path& to) {
    if (told.backups.empty()) return;
    const fs::path folder = told.backups.begin()->first;
    const auto states = backupStates(folder);
    ASSERT_TRUE(states && !states->empty());
    FileStore files;
    const auto back = restoreBackup(folder, states->front(), to, files);
    ASSERT_TRUE(back) << said(back.error().text);
    const auto library = Library::open(to, false, std::make_shared<FileStore>());
    ASSERT_TRUE(library) << said(library.error().text);
    (*library)->sweep();
    const auto problems = (*library)->verify();
    EXPECT_TRUE(problems.empty()) << problems.front();
    fs::remove_all(to);
}

/// Everything that was told to lie on the disk lies there, once.
void expectKept(Library& library, const Told& told) {
    const auto problems = library.verify();
    EXPECT_TRUE(problems.empty()) << problems.front();
    for (const auto& [id, edit] : told.edits) {
        const auto review = library.review({id});
        ASSERT_TRUE(review) << said(review.error().text);
        EXPECT_GE(review->revision, edit.first) << id;
        if (review->revision == edit.first) {
            EXPECT_EQ(review->plan.opening, edit.second) << id;
        }
    }
    for (const auto& [id, said] : told.takes) {
        const auto review = library.review({id});
        ASSERT_TRUE(review);
        EXPECT_GE(review->revision, said.first) << id;
        EXPECT_TRUE(fs::exists(library.takePath(said.second))) << said.second;
        if (review->revision == said.first) {
            EXPECT_TRUE(std::any_of(review->takes.begin(), review->takes.end(),
                                    [&](const auto& t) { return t.second.file == said.second; }));
        }
    }
    for (const std::string& id : told.sent) EXPECT_TRUE(library.review({id})->sent) << id;
    for (const std::string& id : told.taken) EXPECT_TRUE(library.submission({id})) << id;
    std::map<std::string, int> names;
    const auto athletes = library.athletes();
    ASSERT_TRUE(athletes);
    for (const Athlete& a : *athletes) ++names[a.fullName()];
    for (const auto& [name, times] : names) EXPECT_EQ(times, 1) << name << " is there twice";
    const auto submissions = library.submissions();
    ASSERT_TRUE(submissions);
    std::set<std::string> owners;
    for (const Submission& s : *submissions) owners.insert(s.athlete.value);
    for (const Athlete& a : *athletes)
        if (a.firstName.starts_with("Storm")) {
            EXPECT_TRUE(owners.contains(a.id.value)) << a.firstName << " has no film";
        }
}

/// Until something of a kind was told; half a minute at most.
void waitForKind(const fs::path& log, const std::string& kind) {
    for (int i = 0; i < 300; ++i) {
        Told told;
        told.read(log);
        if (told.kinds.contains(kind)) return;
        ::usleep(100000);
    }
}

TEST(Storm, ProgramsKilledAtRandomLoseNothingButWhatWasInFlight) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "film.mp4"));
    std::mt19937 engine(20261128);
    const fs::path lib = folder / "lib", log = folder / "log";
    fs::create_directories(folder / "exports");
    int lines = 0, migrated = 0;
    std::set<std::string> kinds;
    for (int round = 0; round < rounds(); ++round) {
        if (round % 5 == 0) { // a library of an older version: both bring it up to date at once
            fs::remove_all(lib);
            fs::remove_all(folder / "backups");
            fs::create_directories(folder / "backups");
            fs::copy(fs::path(JG_SOURCE_DIR) / "tests/golden/library-1", lib, fs::copy_options::recursive);
            fs::remove(log);
            ++migrated;
        }
        std::vector<pid_t> children;
        for (int i = 0; i < kPrograms; ++i)
            children.push_back(
                start(lib, folder / "film.mp4", log,
                      static_cast<unsigned>(engine()) / 5 * 5 + static_cast<unsigned>((i + round) % 5)));
        // A machine that is busy with other things would be killed at the start of everything.
        if (round % 5 == 0) waitForKind(log, "taken");
        ::usleep(static_cast<useconds_t>(200000 + engine() % 900000)); // the first of it is their start
        for (const pid_t child : children) {
            ::usleep(static_cast<useconds_t>(engine() % 150000)); // the others go on
            ::kill(child, SIGKILL);
            int status = 0;
            ::waitpid(child, &status, 0);
            ASSERT_TRUE(WIFSIGNALED(status)) << "it ended by itself with " << WEXITSTATUS(status);
        }
        auto library = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(library) << round << ": " << said(library.error().text);
        Told told;
        told.read(log);
        lines = std::max(lines, told.lines);
        kinds.insert(told.kinds.begin(), told.kinds.end());
        (*library)->sweep();
        expectKept(**library, told);
        expectWholeExports(folder / "exports", told);
        expectBackups(told);
        if (round % 5 == 4) expectRestored(told, folder / "restored");
        ASSERT_FALSE(HasFailure()) << "in round " << round;
    }
    EXPECT_GT(lines, 5); // the kills fell among real work
    EXPECT_GE(migrated, 1);
    EXPECT_EQ(kinds, (std::set<std::string>{"backed", "edit", "exported", "said", "sent", "taken"}));
}

/// JUXTAGRAPH_CUTS=1000 is the long run.
int cuts() {
    const char* asked = std::getenv("JUXTAGRAPH_CUTS");
    return asked ? std::atoi(asked) : 15;
}

/// One program with a shadow of what it syncs.
pid_t startShadowed(const TempFolder& folder, unsigned seed) {
    const std::string preload = "LD_PRELOAD=" + (test::binFolder() / "libpower_cut.so").string(),
                      under = "JG_POWER_UNDER=" + (folder / "disk").string(),
                      shadow = "JG_POWER_SHADOW=" + (folder / "shadow").string(),
                      program = (test::binFolder() / "library_storm").string(), number = std::to_string(seed);
    const fs::path lib = folder / "disk" / "lib", film = folder / "film.mp4", log = folder / "log";
    const pid_t child = ::fork();
    if (child != 0) return child;
    ::execl("/usr/bin/env", "env", preload.c_str(), under.c_str(), shadow.c_str(), program.c_str(),
            lib.c_str(), film.c_str(), log.c_str(), number.c_str(), static_cast<char*>(nullptr));
    ::_exit(127);
}

TEST(Storm, APowerCutTakesNothingThatWasToldToBeKept) {
    const TempFolder folder;
    const fs::path disk = folder / "disk", shadow = folder / "shadow";
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "film.mp4"));
    std::mt19937 engine(20261202);
    std::set<std::string> kinds;
    for (int round = 0; round < cuts(); ++round) {
        if (round % 5 == 0) { // a library of an older version is brought up to date under the cuts, too
            for (const char* name : {"disk", "shadow"}) fs::remove_all(folder / name);
            for (const char* name : {"disk/exports", "disk/backups", "shadow"})
                fs::create_directories(folder / name);
            fs::copy(fs::path(JG_SOURCE_DIR) / "tests/golden/library-1", disk / "lib",
                     fs::copy_options::recursive);
            fs::remove(folder / "log");
        }
        power::keepAll(disk, shadow);
        const pid_t child = startShadowed(folder, static_cast<unsigned>(engine()) / 5 * 5 + round % 5);
        if (round % 5 == 0) waitForKind(folder / "log", "taken");
        ::usleep(static_cast<useconds_t>(300000 + engine() % 1500000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status)) << "it ended by itself with " << WEXITSTATUS(status);
        power::cut(disk, shadow);
        auto library = Library::open(disk / "lib", false, std::make_shared<FileStore>());
        ASSERT_TRUE(library) << round << ": " << said(library.error().text);
        Told told;
        told.read(folder / "log");
        kinds.insert(told.kinds.begin(), told.kinds.end());
        (*library)->sweep();
        expectKept(**library, told);
        expectWholeExports(disk / "exports", told);
        expectBackups(told);
        ASSERT_FALSE(HasFailure()) << "in round " << round;
    }
    EXPECT_GE(kinds.size(), 3U); // the cuts fell among real work
}

TEST(Storm, ARestoreThatWasToldIsThereAfterAPowerCut) {
    const TempFolder folder;
    const fs::path disk = folder / "disk", shadow = folder / "shadow", golden = folder / "golden";
    fs::create_directories(disk);
    fs::create_directories(shadow);
    fs::copy(fs::path(JG_SOURCE_DIR) / "tests/golden/library-1", golden, fs::copy_options::recursive);
    std::size_t reviews = 0;
    {
        const auto library = Library::open(golden, false, std::make_shared<FileStore>());
        ASSERT_TRUE(library);
        reviews = (*library)->reviews()->size();
        ASSERT_TRUE(backUp(**library, folder / "backup", 1'795'000'000));
    }
    power::keepAll(disk, shadow);
    int code = 0;
    const std::string said =
        test::shell("LD_PRELOAD=" + (test::binFolder() / "libpower_cut.so").string() +
                        " JG_POWER_UNDER=" + disk.string() + " JG_POWER_SHADOW=" + shadow.string() + " " +
                        (test::binFolder() / "juxtagraph-cli").string() + " restore " +
                        (folder / "backup").string() + " " + (disk / "new" / "lib").string(),
                    &code);
    ASSERT_EQ(code, 0) << said;
    power::cut(disk, shadow);
    const auto library = Library::open(disk / "new" / "lib", false, std::make_shared<FileStore>());
    ASSERT_TRUE(library) << jg::said(library.error().text);
    const auto problems = (*library)->verify();
    EXPECT_TRUE(problems.empty()) << problems.front();
    EXPECT_EQ((*library)->reviews()->size(), reviews);
}

} // namespace
} // namespace jg
