// SPDX-License-Identifier: GPL-3.0-or-later
// Claims that no video can show. They may stand in a playbook, as somebody's opinion, and are never computed.
#pragma once

#include <string>
#include <string_view>

namespace jg {

/// The word in a text that claims what a video can't show, as it stands there (a force, a torque, a load, a
/// share of the power, what a tissue bears); empty when there is none. English. Pure.
std::string claimIn(std::string_view text);

} // namespace jg
