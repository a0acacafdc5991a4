// SPDX-License-Identifier: GPL-3.0-or-later
// Text as it is compared, not shown.
#pragma once

#include <string>
#include <string_view>

namespace jg {

/// Small letters without accents, and one kind of apostrophe. UTF-8. Pure.
std::string plainLetters(std::string_view text);

} // namespace jg
