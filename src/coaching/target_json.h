// SPDX-License-Identifier: GPL-3.0-or-later
// Targets as JSON: one reader for the playbook's files and for the copy a review keeps.
#pragma once

#include "coaching/target.h"

#include <nlohmann/json_fwd.hpp>

namespace jg {

/// Reads a target's row (docs/formats.md). Throws std::exception with a sentence that names what is wrong;
/// callers turn it into their room's Error.
Target targetFromJson(const nlohmann::json& row);

/// The row that targetFromJson() reads.
nlohmann::json targetAsJson(const Target& target);

} // namespace jg
