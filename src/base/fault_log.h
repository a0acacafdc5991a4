// SPDX-License-Identifier: GPL-3.0-or-later
// What went wrong in the last hours, for who mends the program. Nobody's name is in it: a note holds ids of
// sentences and kinds of errors, never their arguments.
#pragma once

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// One fault, or the same one several times in a row.
struct FaultNote {
    std::int64_t unix = 0; ///< when it was noted last, seconds since 1970 UTC
    std::string category;  ///< the part of the program, as the ids of its sentences begin: "reader"
    std::string what;      ///< "Damaged: reader.cut-short, file-store.unreadable"
    int times = 1;
    bool operator==(const FaultNote&) const = default;
};

inline constexpr std::size_t kMostFaults = 400; ///< are held; own choice
inline constexpr int kFaultHours = 24; ///< older ones are left out of the file at the next start; own choice

/// True for a note of the last kFaultHours. Pure.
bool isRecent(const FaultNote& note, std::int64_t nowUnix);

/// Notes a fault. Quiet: it is written to stderr only where the environment's JUXTAGRAPH_LOG names its
/// category, or "all". `what` holds nothing that a person wrote. Any thread.
void noteFault(std::string_view category, std::string_view what);

/// All that are held, the oldest first. Any thread.
std::vector<FaultNote> notedFaults();

/// From now on notes go into this file, too, each at once: it outlives a crash. Those in it of the last
/// kFaultHours are held again. What can't be written is no fault of its own. Any thread; once, at the start.
void keepFaultsIn(const std::filesystem::path& file, std::int64_t nowUnix);

/// "2026-12-02 09:33:47  reader  Damaged: reader.cut-short  (3)": a line of the file and of a report, in UTC.
std::string lineOf(const FaultNote& note);

} // namespace jg
