// SPDX-License-Identifier: GPL-3.0-or-later
// A list of athletes from a table: checked, shown, and then merged with who is there.
#pragma once

#include "library/library.h"

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// What a row of a roster would do.
enum class RosterKind { New, Changed, Same, Refused };
std::string_view idOf(RosterKind kind);

/// One row of a roster beside the library.
struct RosterRow {
    int line = 0;    ///< in the file, the head is 1
    std::string who; ///< as the file calls them
    RosterKind kind = RosterKind::New;
    Athlete athlete; ///< as they would be kept
    Athlete shown;   ///< of a changed one: as they were when the table was read
    Message words;   ///< what changes, or why it is refused; empty for others
};

/// Reads a table (RFC 4180 with commas, or with semicolons, UTF-8; its head names the columns in any order:
/// docs/formats.md) and compares each row with the athletes of the library: the same name and date of birth
/// is the same person, whose empty fields stay as they are. Nothing is written. Errors: BadInput for a file
/// that is no such table, with the line; NotFound, those of reading the store.
Result<std::vector<RosterRow>> readRoster(Store& store, const std::filesystem::path& file, Date today);

/// Keeps new and changed rows, all or none; gives how many. Errors: Stale when somebody in it was changed
/// meanwhile, those of writing.
Result<int> keepRoster(Store& store, const std::vector<RosterRow>& rows);

} // namespace jg
