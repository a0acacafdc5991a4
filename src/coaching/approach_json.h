// SPDX-License-Identifier: GPL-3.0-or-later
// Approaches as JSON: the playbook's files, the copy a judging keeps, and what coaches hand to each other.
#pragma once

#include "coaching/playbook.h"

#include <nlohmann/json_fwd.hpp>

namespace jg {

inline constexpr const char* kApproachFormat = "juxtagraph-approach-1";

/// Reads an approach (docs/formats.md); whether it makes sense is for checkApproach(). Throws std::exception
/// with a sentence that names what is wrong; callers turn it into their room's Error.
Approach approachFromJson(const nlohmann::json& document);

/// What approachFromJson() reads, with its format.
nlohmann::json approachAsJson(const Approach& approach);

} // namespace jg
