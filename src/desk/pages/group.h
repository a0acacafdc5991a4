// SPDX-License-Identifier: GPL-3.0-or-later
// All athletes at a glance: when they were looked at last, what is owed, what is furthest off.
#pragma once

#include "library/store.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

struct GroupRow {
    Athlete athlete;
    int age = 0;
    std::string approach; ///< its id
    std::optional<Date> lastLook;
    std::optional<Date> nextDue;       ///< of what the house owes, the earliest
    int owed = 0;                      ///< open promises of the house
    std::string worst;                 ///< finding id of the largest gap in the newest review; empty = none
    double worstInErrors = 0;          ///< that gap beside the error that is shown with it
    std::vector<std::string> findings; ///< all faults of the newest review, what protects the arm first
    std::vector<std::string> protect;  ///< of them those that protect the arm
};

/// What is shown of a group.
struct GroupFilter {
    std::optional<int> ageFrom = {}, ageTo = {};
    std::string approach = {}; ///< id; empty = all
    std::string finding = {};  ///< id; empty = all
    bool protectOnly = false;
};

/// Those with something owed longest first, then those looked at longest ago. Errors: those of reading.
Result<std::vector<GroupRow>> readGroup(Store& store, const Playbook& playbook, Date today);

/// The rows that pass. Pure.
std::vector<GroupRow> filtered(const std::vector<GroupRow>& rows, const GroupFilter& filter);

/// RFC 4180, one row an athlete; without names they are numbered. Pure.
std::string groupAsCsv(const std::vector<GroupRow>& rows, const Playbook& playbook, bool withNames);

} // namespace jg
