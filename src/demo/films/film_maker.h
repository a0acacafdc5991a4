// SPDX-License-Identifier: GPL-3.0-or-later
// Films of generated deliveries, with their exact truth.
#pragma once

#include "base/result.h"
#include "demo/films/film_order.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>

namespace jg {

/// Writes the film; returns its truth as JSON text (docs/formats.md). Deterministic from the order.
/// Errors: DiskFull, WriteFailed, Cancelled.
Result<std::string> makeFilm(const FilmOrder& order, const std::filesystem::path& path,
                             std::stop_token stop = {}, const std::function<void(double)>& progress = {});

/// The frame number burned into row 0..7 of a picture by `frameNumbers`: 16 blocks, bright = 1. -1 when there
/// is none. `bgrx` as in Picture.
int burnedNumber(const std::uint8_t* bgrx, int stride, int width);

} // namespace jg
