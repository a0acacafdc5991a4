// SPDX-License-Identifier: GPL-3.0-or-later
// A report of a fault: what is in it, and what never is.
#include "desk/keeping/fault_report.h"
#include "tests/support/harm.h"
#include "tests/support/walk.h"

namespace jg {
namespace {

using test::Walk;

std::string reportOf(Walk& walk) {
    return faultReport(*walk.library, notedFaults(), {"1280 x 800, 96 dpi", false, SystemClock().nowUnix()},
                       english());
}

TEST(FaultReport, TellsVersionsSizesAndTheLog) {
    Walk walk(Stage::Judge);
    noteFault("reader", "Damaged: reader.cut-short");
    const std::string report = reportOf(walk);
    for (const char* part : {"Juxtagraph " JG_VERSION, "Qt 6.", "FFmpeg ", "1280 x 800",
                             "1 athletes, 1 submissions, 1 reviews", "reader  Damaged: reader.cut-short"})
        EXPECT_NE(report.find(part), std::string::npos) << part << "\n" << report;
}

TEST(FaultReport, NobodyIsNamedWhateverWentWrong) {
    Walk walk(Stage::Judge);
    test::harm(walk.library->folder(),
               "UPDATE athletes SET document = replace(document, '\"hand\"', '\"hnad\"')");
    EXPECT_FALSE(walk.library->athlete(walk.athlete.id));
    (void)walk.library->athletes();
    (void)readFile(walk.folder / "Odalys Brandt.mp4" / "none");
    FileStore().write("/proc/Odalys Brandt/x", "x").ok();
    const std::string report = reportOf(walk);
    EXPECT_NE(report.find("Damaged"), std::string::npos) << report;
    EXPECT_NE(report.find("WriteFailed"), std::string::npos) << report;
    for (const std::string& word :
         {walk.athlete.firstName, walk.athlete.lastName, walk.athlete.email, walk.athlete.guardianEmail,
          walk.athlete.id.value, walk.submission.asked, walk.folder.path().string(), std::string("Ilse"),
          std::string("Larkmoor")})
        EXPECT_EQ(report.find(word), std::string::npos) << word << "\n" << report;
}

TEST(FaultReport, WhatIsOlderThanItSaysIsLeftOut) {
    Walk walk(Stage::Look);
    const std::int64_t now = SystemClock().nowUnix();
    const std::vector<FaultNote> notes = {{now - (kFaultHours + 1) * 3600, "old", "one"},
                                          {now - 5, "new", "one"}};
    const std::string report = faultReport(*walk.library, notes, {"", true, now}, english());
    EXPECT_EQ(report.find("old  one"), std::string::npos);
    EXPECT_NE(report.find("new  one"), std::string::npos);
    EXPECT_NE(report.find("Names out of sight: yes"), std::string::npos);
}

} // namespace
} // namespace jg
