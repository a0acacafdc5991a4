// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/list_entries.h"

#include <array>

namespace jg {

const char* tableOf(ListOf list) {
    constexpr std::array<const char*, kListCount> kTables = {"due_mails",      "seen_mails",   "own_rows",
                                                             "own_approaches", "own_measures", "phrases",
                                                             "backups",        "forgotten",    "error_runs"};
    return kTables.at(static_cast<std::size_t>(list));
}

} // namespace jg
