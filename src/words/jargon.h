// SPDX-License-Identifier: GPL-3.0-or-later
// Words of the trade that a child does not know; a reading formula takes them for short and easy.
#pragma once

#include <string_view>

namespace jg {

/// How often words of the trade stand in a text ("en", "es"), whole words in any case. Pure. The list is an
/// own choice.
int jargonIn(std::string_view text, std::string_view language);

} // namespace jg
