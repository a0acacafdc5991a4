// SPDX-License-Identifier: GPL-3.0-or-later
// A mark on widgets that show what is said to the reader of a letter, in the reader's language and not the
// window's.
#pragma once

namespace jg::ui {

inline constexpr const char* kReadersWords = "readersWords"; ///< a property, true

} // namespace jg::ui
