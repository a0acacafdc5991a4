// SPDX-License-Identifier: GPL-3.0-or-later
// Why something can't be seen: the usual reasons, kept as ids, and a coach's own words.
#pragma once

#include "base/message.h"

#include <span>
#include <string>
#include <string_view>

namespace jg {

/// The ids of the usual reasons, in the order in which they are offered. Documents hold them as they are.
std::span<const std::string_view> usualReasons();
/// What the program itself keeps as a reason.
inline constexpr std::string_view kHiddenByBody = "hidden by the body", kSetAside = "set aside by the coach";
/// A reason as it is kept: one of the usual ones, or what the coach wrote.
Message reasonInWords(const std::string& reason);

} // namespace jg
