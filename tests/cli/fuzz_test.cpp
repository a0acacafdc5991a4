// SPDX-License-Identifier: GPL-3.0-or-later
// The doors for strangers' bytes, a few hundred changed ones each; many more by ./run fuzz.
#include "tests/support/fixtures.h"

#include <cstdlib>

namespace jg {
namespace {

namespace fs = std::filesystem;

class Fuzz : public testing::TestWithParam<const char*> {};

TEST_P(Fuzz, NothingCrashesOrHangs) {
    const test::TempFolder folder;
    fs::copy(fs::path(JG_SOURCE_DIR) / "tests/golden/library-1", folder / "library",
             fs::copy_options::recursive);
    const char* asked = std::getenv("JUXTAGRAPH_FUZZ");
    const std::string count = asked ? asked : "300";
    int code = -1;
    const std::string said = test::shell("'" + (test::binFolder() / "fuzz").string() + "' " + GetParam() +
                                             " 0 " + count + " '" + folder.path().string() + "' 2>&1",
                                         &code);
    EXPECT_EQ(code, 0) << said;
    EXPECT_NE(said.find(count + " through " + GetParam()), std::string::npos) << said;
}

INSTANTIATE_TEST_SUITE_P(Doors, Fuzz,
                         testing::Values("review", "people", "derived", "playbook", "approach", "settings",
                                         "typed", "sound", "points", "mail"),
                         [](const auto& door) { return std::string(door.param); });

/// Odd words on the command line end in a sentence, never in a signal.
TEST(FuzzCommandLine, OddWordsEndInASentence) {
    const test::TempFolder folder;
    const std::string cli = "'" + (test::binFolder() / "juxtagraph-cli").string() + "' ";
    const char* const lines[] = {"",
                                 "--",
                                 "-",
                                 "--help --help",
                                 "demo",
                                 "demo --films",
                                 "verify",
                                 "verify ''",
                                 "verify . --json --json",
                                 "probe /dev/zero",
                                 "probe .",
                                 "probe ''",
                                 "frame x y z",
                                 "review",
                                 "review list /dev/null",
                                 "send . x --smtp ''",
                                 "judge",
                                 "judge --target",
                                 "measure --input /dev/null",
                                 "approaches --json x",
                                 "probe '\xff\xfe'",
                                 "--verify",
                                 "decode -1 -1 -1",
                                 "measure --input . --measure ''",
                                 "judge --measure nothing --value 1e999 --sd nan --target '>'"};
    for (const char* line : lines) {
        int code = -1;
        const std::string said = test::shell(cli + line + " </dev/null 2>&1", &code);
        EXPECT_LT(code, 4) << line << ": " << said; // 128 and more: a signal
        EXPECT_FALSE(said.empty()) << line;
    }
}

} // namespace
} // namespace jg
