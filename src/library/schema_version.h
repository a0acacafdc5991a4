// SPDX-License-Identifier: GPL-3.0-or-later
// Which layout of a library this program writes.
#pragma once

namespace jg {

/// The newest schema this program knows.
inline constexpr int kSchemaVersion = 5;

} // namespace jg
