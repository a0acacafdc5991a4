// SPDX-License-Identifier: GPL-3.0-or-later
// Single rows of the playbook, items, causes and drills: as JSON, checked one by one, and joined to a
// playbook.
#pragma once

#include "coaching/playbook.h"

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace jg {

/// One row that a coach may write or change.
using PlaybookRow = std::variant<GradedItem, Cause, Drill>;

/// Which row it is: an item's or drill's id, a cause's two ends and whose opinion it is.
std::string keyOf(const PlaybookRow& row);
/// Its name, a cause's "from: to" by id. For messages.
std::string nameOf(const PlaybookRow& row);

/// Rows as the playbook's files hold them (docs/formats.md). The readers throw std::exception with a reason.
GradedItem itemFromJson(const nlohmann::json& row);
Cause causeFromJson(const nlohmann::json& row);
Drill drillFromJson(const nlohmann::json& row);
/// {"kind": "item" | "cause" | "drill", "row": {...}}
PlaybookRow rowFromJson(const nlohmann::json& document);
nlohmann::json rowAsJson(const PlaybookRow& row);

/// The fields in which two editions of a row differ, by their names in the file.
std::vector<std::string> changedFields(const PlaybookRow& before, const PlaybookRow& after);

/// Looks whether a row can be used: an item with all its words, a cause between two findings with its owner
/// and reason, a drill that says how and how often and serves something. Errors: BadInput with a sentence.
Status checkRow(const Playbook& playbook, const PlaybookRow& row);

} // namespace jg
