// SPDX-License-Identifier: GPL-3.0-or-later
// Where the shipped data lies.
#pragma once

#include "base/result.h"

#include <filesystem>
#include <string>
#include <vector>

namespace jg {

/// The data folder beside the running executable (../share/juxtagraph). Needs a QCoreApplication.
std::filesystem::path dataFolder();
/// The shipped demo voice's takes, in order.
std::vector<std::filesystem::path> demoVoices();

/// The library a window begins with: the one named, else the last one, else `otherwise`, which may be made.
/// Errors: NotFound when the last one is not where it was: its disk may be away, and no empty one takes its
/// place.
Result<std::filesystem::path> libraryToOpen(const std::string& named, const std::string& last,
                                            const std::filesystem::path& otherwise);

} // namespace jg
