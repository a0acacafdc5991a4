// SPDX-License-Identifier: GPL-3.0-or-later
// The demo library: made-up athletes of Larkmoor, their films and reviews.
#pragma once

#include "base/date.h"
#include "base/result.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>

namespace jg {

/// Makes the whole demo library in an empty folder: the same from the same seed and day. `progress` gets 0..1
/// and what is being made. Errors: Refused (folder not empty), Cancelled, those of writing.
Status makeDemoLibrary(const std::filesystem::path& folder, std::uint64_t seed, Date today,
                       std::stop_token stop = {},
                       const std::function<void(double, const Message&)>& progress = {});

/// `count` random deliveries as films in `folder`, and their truth as one JSON file. Errors as above.
Status makeDemoFilms(const std::filesystem::path& folder, int count, std::uint64_t seed,
                     const std::filesystem::path& truth, std::stop_token stop = {},
                     const std::function<void(double)>& progress = {});

} // namespace jg
