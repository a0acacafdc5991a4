// SPDX-License-Identifier: GPL-3.0-or-later
// A playbook joined with rows of the coach's own.
#pragma once

#include "base/result.h"
#include "coaching/playbook_rows.h"

#include <string>
#include <utility>
#include <vector>

namespace jg {

/// The playbook with rows of one's own, by key: a known key changes that row, another adds one. Approaches,
/// measures, depths and lengths stay. Its text holds the rows, so that a review freezes them. Errors:
/// BadInput, as where an item is missing that an approach grades.
Result<Playbook> withRows(const Playbook& playbook,
                          const std::vector<std::pair<std::string, PlaybookRow>>& rows);

} // namespace jg
