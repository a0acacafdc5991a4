// SPDX-License-Identifier: GPL-3.0-or-later
// Which FFmpeg reads the films.
#pragma once

#include <string>

namespace jg {

/// As it calls itself, "5.1.6". Any thread.
std::string ffmpegVersion();

} // namespace jg
