// SPDX-License-Identifier: GPL-3.0-or-later
// What is noted of faults, and that nobody's name is.
#include "base/caught.h"
#include "base/fault_log.h"
#include "tests/support/core.h"

#include <fstream>
#include <stdexcept>
#include <thread>

namespace jg {
namespace {

std::string lastNote() {
    const auto all = notedFaults();
    return all.empty() ? std::string() : all.back().category + " | " + all.back().what;
}

TEST(FaultLog, AnErrorIsNotedByItsIdsAndNoneOfItsWords) {
    const Message inner = msg("file-store.unreadable", {{"path", "/home/ilse/Odalys Brandt.mp4"}});
    const Error error =
        fail(ErrorCode::Damaged, msg("reader.cut-short", {{"name", "Odalys"}, {"why", inner}}));
    EXPECT_EQ(error.code, ErrorCode::Damaged);
    EXPECT_EQ(lastNote(), "reader | Damaged: reader.cut-short, file-store.unreadable");
}

TEST(FaultLog, APlaybooksSentenceIsLeftOut) {
    (void)fail(ErrorCode::Internal,
               joined(ListStyle::And, {filled("Ludo's own cue {x}", {{"x", "y"}}), msg("a.b")}));
    EXPECT_EQ(lastNote(), "a | Internal: a.b");
}

TEST(FaultLog, WhatIsUsualIsNotNoted) {
    noteFault("before", "it");
    for (const ErrorCode code : {ErrorCode::BadInput, ErrorCode::NotFound, ErrorCode::Refused,
                                 ErrorCode::Stale, ErrorCode::NeedsYes, ErrorCode::Cancelled})
        (void)fail(code, msg("some.thing"));
    EXPECT_EQ(lastNote(), "before | it");
}

TEST(FaultLog, WhatAThreadThrowsIsNotedByItsType) {
    const Status broke = caught([]() -> Status { throw std::runtime_error("Odalys Brandt"); });
    EXPECT_FALSE(broke);
    const auto all = notedFaults();
    ASSERT_GE(all.size(), 2U);
    EXPECT_EQ(all[all.size() - 2].category, "broken");
    EXPECT_NE(all[all.size() - 2].what.find("runtime_error"), std::string::npos);
    for (const FaultNote& note : all) EXPECT_EQ(note.what.find("Odalys"), std::string::npos) << note.what;
}

TEST(FaultLog, TheFileOutlivesTheProgramAndForgetsWhatIsOld) {
    const test::TempFolder folder;
    const auto file = folder / "faults.log";
    constexpr std::int64_t now = 1'800'000'000;
    std::ofstream(file) << now - (kFaultHours + 1) * 3600 << "\told\tone\n"
                        << now - 60 << "\tnew\tone\n"
                        << "no line of it\n\t\t\nx\ty\tz\n";
    keepFaultsIn(file, now);
    noteFault("later", "a line\nthat was broken\tinto parts");
    std::ifstream kept(file);
    const std::string text((std::istreambuf_iterator<char>(kept)), {});
    EXPECT_EQ(text.find("old"), std::string::npos);
    EXPECT_NE(text.find("\tnew\tone\n"), std::string::npos);
    EXPECT_NE(text.find("\tlater\ta line that was broken into parts\n"), std::string::npos);
    EXPECT_EQ(text.find("\ty\tz"), std::string::npos);
}

TEST(FaultLog, TheSameAgainIsCountedAndSoMuchIsHeld) {
    for (int i = 0; i < 5; ++i) noteFault("again", "it");
    EXPECT_EQ(notedFaults().back().times, 5);
    for (std::size_t i = 0; i < kMostFaults + 20; ++i) noteFault("many", std::to_string(i));
    EXPECT_EQ(notedFaults().size(), kMostFaults);
    EXPECT_EQ(notedFaults().back().what, std::to_string(kMostFaults + 19));
}

TEST(FaultLog, TakesNotesFromManyThreads) {
    {
        std::vector<std::jthread> threads;
        for (int t = 0; t < 4; ++t)
            threads.emplace_back([t] {
                for (int i = 0; i < 50; ++i) noteFault("thread", std::to_string(t) + "-" + std::to_string(i));
            });
    }
    std::size_t noted = 0;
    for (const FaultNote& note : notedFaults())
        if (note.category == "thread") noted += static_cast<std::size_t>(note.times);
    EXPECT_EQ(noted, 200U);
}

TEST(FaultLog, ALineIsToldInUtc) {
    EXPECT_EQ(lineOf({1'780'000'000, "reader", "Damaged: reader.cut-short", 3}),
              "2026-05-28 20:26:40  reader  Damaged: reader.cut-short  (3)");
}

} // namespace
} // namespace jg
