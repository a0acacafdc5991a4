// The playbook's files as text, and their reader; within the room.
#pragma once

#include "coaching/playbook.h"

#include <map>
#include <string>
#include <vector>

namespace jg {

/// The playbook's files by name.
using PlaybookFiles = std::map<std::string, std::string>;

/// Reads them all and checks that all ids meet; `known` are measures of the coach's own that no file lists.
/// Without depths. Throws std::exception with a reason.
Playbook parsePlaybook(const PlaybookFiles& files, const std::vector<MeasureDefinition>& known = {});

} // namespace jg
