// SPDX-License-Identifier: GPL-3.0-or-later
// Single rows of an approach.
#pragma once

#include "coaching/playbook.h"

#include <optional>
#include <string>

namespace jg {

/// Puts a measure's target in place of the one it has, or behind the others; nothing takes it away. Returns
/// what stood there.
std::optional<Target> exchangeTarget(Approach& approach, const std::string& measure,
                                     std::optional<Target> value);

/// Whether an approach has a target for a measure, or grades an item, of that id.
bool asksFor(const Approach& approach, const std::string& id);

} // namespace jg
