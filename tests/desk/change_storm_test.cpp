// SPDX-License-Identifier: GPL-3.0-or-later
// Two programs that change a library as windows do, and the command line's roster, killed at random moments:
// nothing that was told to be kept is lost, nothing that was taken back comes back, and each saw the other's
// change within two seconds.
#include "tests/support/walk.h"

#include <QProcess>

#include <csignal>
#include <fstream>
#include <map>
#include <random>
#include <set>
#include <sstream>

namespace jg {
namespace {

using test::Walk;

QString bin(const char* name) {
    return QString::fromStdString((test::binFolder() / name).string());
}

struct Log {
    std::map<std::string, std::set<std::string>> kept; ///< marks by what was done
    std::vector<std::string> reviews;                  ///< openings, in the order they were told
    std::vector<int> sawAfterMs;

    explicit Log(const std::filesystem::path& file) {
        std::ifstream in(file);
        for (std::string what, mark; in >> what >> mark;) {
            if (what == "saw")
                sawAfterMs.push_back(std::stoi(mark));
            else
                kept[what].insert(mark);
            if (what == "review") reviews.push_back(mark);
        }
    }
    std::size_t changes() const {
        std::size_t all = 0;
        for (const auto& [what, marks] : kept) all += marks.size();
        return all;
    }
};

void expectKept(Library& library, const Walk& walk, const Log& log, int levels) {
    const Athlete now = *library.athlete(walk.athlete.id);
    std::set<std::string> outings, promises;
    for (const PitchCount& o : now.outings) outings.insert(o.felt);
    const auto owed = library.promises();
    for (const Promise& p : *owed) promises.insert(said(p.text));
    const auto in = [&](const char* what) {
        const auto it = log.kept.find(what);
        return it == log.kept.end() ? std::set<std::string>() : it->second;
    };
    for (const std::string& mark : in("outing")) EXPECT_TRUE(outings.contains(mark)) << mark;
    for (const std::string& mark : in("promise")) EXPECT_TRUE(promises.contains(mark)) << mark;
    for (const std::string& mark : in("setting")) EXPECT_EQ(library.setting("storm." + mark), mark);
    for (const std::string& mark : in("due"))
        EXPECT_TRUE(*library.row(ListOf::DueMails, "mail-" + mark)) << mark;
    if (!in("consent").empty()) {
        EXPECT_TRUE(now.consent && now.consent->takenBack) << "a consent came back";
    }
    if (levels > 0) {
        EXPECT_EQ(now.level, "level " + std::to_string(levels));
    }
    // Each that was told is a revision of its own.
    EXPECT_GE(library.review(walk.review.id)->revision, static_cast<std::int64_t>(log.reviews.size()));
    const auto problems = library.verify();
    EXPECT_TRUE(problems.empty()) << said(problems.front());
}

// JUXTAGRAPH_CHANGES=2000 is the long run.
TEST(ChangeStorm, TwoProgramsAndTheCommandLineLoseNothingAndSeeEachOther) {
    const char* asked = std::getenv("JUXTAGRAPH_CHANGES");
    const std::size_t wanted = asked ? static_cast<std::size_t>(std::atoi(asked)) : 150;
    Walk walk{Stage::Send};
    const auto log = walk.folder / "log", roster = walk.folder / "roster.csv";
    const QString library = QString::fromStdString(walk.library->folder().string());
    std::mt19937 dice(35);
    int kills = 0, levels = 0;
    for (std::size_t done = 0; done < wanted && kills < 400; done = Log(log).changes()) {
        QProcess a, b;
        for (const auto& [program, me] : {std::pair{&a, "a"}, std::pair{&b, "b"}})
            program->start(bin("change_storm"), {library, QString::fromStdString(log.string()), me,
                                                 QString::number(dice() % 100000)});
        ASSERT_TRUE(a.waitForStarted() && b.waitForStarted());
        const int ms = 1500 + static_cast<int>(dice() % 3000);
        test::turnUntil([] { return false; }, ms / 2);
        std::ofstream(roster) << "first name,last name,born,level\nOdalys,Brandt,"
                              << isoDate(walk.athlete.born) << ",level " << levels + 1 << "\n";
        QProcess cli;
        cli.start(bin("juxtagraph-cli"),
                  {"roster", library, QString::fromStdString(roster.string()), "--yes"});
        if (test::turnUntil([&] { return cli.state() == QProcess::NotRunning; }, 20000) &&
            cli.exitCode() == 0)
            ++levels;
        test::turnUntil([] { return false; }, ms / 2);
        for (QProcess* program : {&a, &b}) {
            ASSERT_EQ(program->state(), QProcess::Running) << program->exitCode();
            program->kill();
            program->waitForFinished();
            ++kills;
        }
        const auto own = Library::open(walk.library->folder(), false, std::make_shared<FileStore>());
        ASSERT_TRUE(own) << said(own.error().text);
        expectKept(**own, walk, Log(log), levels);
        ASSERT_FALSE(HasFailure()) << "after " << kills << " kills";
    }
    const Log all(log);
    EXPECT_GE(all.changes(), wanted);
    EXPECT_GT(levels, 0);
    std::vector<int> saw = all.sawAfterMs;
    ASSERT_FALSE(saw.empty());
    std::sort(saw.begin(), saw.end());
    std::printf(
        "%zu changes, %d kills, %d by the command line; seen after %d ms (median), %d ms (most) of %zu\n",
        all.changes(), kills, levels, saw[saw.size() / 2], saw.back(), saw.size());
    // A busy machine may be late once; the usual one is not.
    EXPECT_LT(saw[saw.size() * 9 / 10], 2000);
}

} // namespace
} // namespace jg
