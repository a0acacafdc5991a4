// SPDX-License-Identifier: GPL-3.0-or-later
// Harm done to a library as a disk does it.
#pragma once

#include <filesystem>
#include <string>

namespace jg::test {

/// Runs SQL behind the library's back: the triggers that keep its checksums do not notice.
void harm(const std::filesystem::path& library, const std::string& sql);

} // namespace jg::test
