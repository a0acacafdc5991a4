// SPDX-License-Identifier: GPL-3.0-or-later
// What the columns of a sheet of deliveries stand at.
#pragma once

#include "kinematics/anatomy.h"
#include "review/assess/feature.h"

#include <optional>
#include <string_view>
#include <variant>
#include <vector>

namespace jg {

/// A key position, or the moment that matters of a feature's curve.
using JuxtaAt = std::variant<Moment, Feature>;

Message nameOf(const JuxtaAt& at);
std::string_view idOf(const JuxtaAt& at);
/// All there are: positions in their order, then features.
std::vector<JuxtaAt> allJuxtaColumns();
std::optional<JuxtaAt> juxtaColumnFromId(std::string_view id);

} // namespace jg
