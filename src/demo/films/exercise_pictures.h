// SPDX-License-Identifier: GPL-3.0-or-later
// The pictures of the click exercise, as they are shipped (data/exercise).
#pragma once

#include "base/result.h"

#include <filesystem>
#include <stop_token>

namespace jg {

/// Writes six pictures of made bodies and `exercise.json` with their joints and truth (docs/formats.md) into
/// a folder; the same ones at every call. Errors: DiskFull, WriteFailed, Cancelled.
Status makeExercisePictures(const std::filesystem::path& folder, std::stop_token stop = {});

} // namespace jg
