// SPDX-License-Identifier: GPL-3.0-or-later
// The scrub copy: every frame on its own, small, so that a jump costs one picture.
#pragma once

#include "base/file_store.h"
#include "film/reader.h"

#include <filesystem>
#include <functional>
#include <stop_token>

namespace jg {

/// Widest picture of a scrub copy, about the stage in a small window (own choice).
inline constexpr int kScrubWidth = 960;

/// Writes a film with the same frame numbers as `reader`'s, turned as shown, each frame a JPEG, no sound, no
/// tags. A frame that can't be decoded is grey. Progress 0..1. Errors: Cancelled, DiskFull, WriteFailed,
/// Internal.
Status makeScrubCopy(Reader& reader, const std::filesystem::path& path, FileStore& files,
                     std::stop_token stop = {}, const std::function<void(double)>& progress = {});

} // namespace jg
