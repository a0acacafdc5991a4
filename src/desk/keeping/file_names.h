// SPDX-License-Identifier: GPL-3.0-or-later
// Names of people as names of files.
#pragma once

#include <string>
#include <string_view>

namespace jg {

/// A name that is one plain file name on every file system: no separator, no control character, no dot in
/// front, at most 80 bytes of UTF-8 (own choice: with a date and an ending it stays under 255). "letter" when
/// nothing is left. Pure.
std::string asFileName(std::string_view name);

} // namespace jg
