// SPDX-License-Identifier: GPL-3.0-or-later
// The playbook from its files, checked.
#pragma once

#include "base/result.h"
#include "coaching/playbook.h"

#include <filesystem>
#include <map>
#include <string>
#include <vector>

namespace jg {

/// Looks whether an approach makes sense: named, ages and bands the right way round, all it names in the
/// playbook, each target at a position and with answers of its measure. Errors: BadInput with a sentence.
Status checkApproach(const Playbook& playbook, const Approach& approach);

/// Reads measures.json, depths.json, trials.json, items.json, causes.json, drills.json and every approach
/// file in `folder`, and focuses.json and screens.json where there are some, and checks that all ids meet.
/// Errors: NotFound, Unreadable, BadInput naming file and row.
Result<Playbook> loadPlaybook(const std::filesystem::path& folder);

/// The playbook that a review was begun with: measures, approaches, items, causes and drills of `text`; what
/// they do not know yet, the body's depths and the coach's choice of lengths are those of `live`. Errors:
/// Damaged.
Result<Playbook> thawPlaybook(const Playbook& live, const std::string& text);

/// The playbook's files by name.
using PlaybookFiles = std::map<std::string, std::string>;

/// Reads them all and checks that all ids meet; `known` are measures of the coach's own that no file lists.
/// Without depths. Throws std::exception with a reason.
Playbook parsePlaybook(const PlaybookFiles& files, const std::vector<MeasureDefinition>& known = {});

} // namespace jg
