// SPDX-License-Identifier: GPL-3.0-or-later
// Each writing call of a whole walk fails once: a sentence, nothing half, and what was told to be done is
// there.
#include "library/library.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <cstdlib>
#include <fstream>
#include <sstream>

namespace jg {
namespace {

namespace fs = std::filesystem;

/// One run of the walk, with the call number `at` failing in one way.
struct WalkRun {
    WalkRun(const fs::path& film, long at, const std::string& how)
        : lib(folder / "lib") {
        const std::string told =
            test::shell("LD_PRELOAD='" + (test::binFolder() / "libfailing_calls.so").string() +
                            "' JG_FAIL_UNDER='" + lib.string() + "' JG_FAIL_AT=" + std::to_string(at) +
                            " JG_FAIL_HOW=" + how + " JG_FAIL_COUNT='" + (folder / "count").string() + "' '" +
                            (test::binFolder() / "whole_walk").string() + "' '" + lib.string() + "' '" +
                            film.string() + "' 2>/dev/null",
                        &code);
        std::istringstream lines(told);
        for (std::string line; std::getline(lines, line);) all.push_back(line);
        std::ifstream(folder / "count") >> calls;
    }
    bool done(const std::string& what) const {
        return std::find(all.begin(), all.end(), "done " + what) != all.end();
    }
    std::string text() const {
        std::string out;
        for (const std::string& line : all) out += line + "\n";
        return out;
    }

    test::TempFolder folder;
    fs::path lib;
    int code = -1;
    long calls = 0;
    std::vector<std::string> all;
};

/// What the walk said it did is on the disk, and nothing is half.
void expectWhole(const WalkRun& run, const std::string& where) {
    ASSERT_TRUE(run.code == 0 || run.code == 1) << where << ": ended with " << run.code << "\n" << run.text();
    for (const std::string& line : run.all)
        if (line.starts_with("failed ")) {
            EXPECT_GT(line.size(), line.find(':') + 10) << where << ": without a sentence: " << line;
        }
    if (!run.done("open")) return;
    auto library = Library::open(run.lib, false, std::make_shared<FileStore>());
    ASSERT_TRUE(library) << where << ": " << said(library.error().text) << "\n" << run.text();
    const auto problems = (*library)->verify();
    EXPECT_TRUE(problems.empty()) << where << ": " << said(problems.front()) << "\n" << run.text();
    const auto submissions = (*library)->submissions();
    ASSERT_TRUE(submissions) << where;
    if (run.done("take-in")) {
        EXPECT_EQ(submissions->size(), 1U) << where;
    }
    if (run.done("keep") && run.done("write")) {
        const auto review = (*library)->reviewOf(submissions->front().id);
        ASSERT_TRUE(review && *review) << where;
        EXPECT_EQ((**review).plan.opening, "Hello Wren.") << where;
    }
    if (run.done("setting")) {
        EXPECT_EQ((*library)->setting("house.place"), "The Tram Shed") << where;
    }
    if (run.done("outbox")) {
        EXPECT_EQ((*library)->outbox()->size(), 1U) << where;
    }
}

TEST(FailingCalls, EachOfAWholeWalkEndsInASentenceAndNothingIsHalf) {
    const test::TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "film.mp4"));
    const WalkRun well(folder / "film.mp4", 0, "ENOSPC");
    ASSERT_EQ(well.code, 0) << well.text();
    ASSERT_GT(well.calls, 50);
    expectWhole(well, "none");
    // Some of them here, each with JUXTAGRAPH_LONG.
    const long step = std::getenv("JUXTAGRAPH_LONG") ? 1 : std::max(1L, well.calls / 20);
    const char* const ways[] = {"ENOSPC", "EIO", "EACCES", "SHORT"};
    int noticed = 0, n = 0;
    for (long at = 1; at <= well.calls; at += step, ++n) {
        const char* how = ways[n % 4];
        const WalkRun run(folder / "film.mp4", at, how);
        expectWhole(run, std::string(how) + " at call " + std::to_string(at));
        noticed += run.code == 1;
    }
    EXPECT_GT(noticed, n / 4); // the calls did fail
}

} // namespace
} // namespace jg
