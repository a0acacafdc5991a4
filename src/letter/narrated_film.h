// SPDX-License-Identifier: GPL-3.0-or-later
// The narrated film: rendered from the recorded events, never grabbed from the screen.
#pragma once

#include "base/file_store.h"
#include "film/encoder.h"
#include "letter/film_recipe.h"

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

inline constexpr double kMegabyte = 1e6; ///< bytes, as sizes of films and mails are told

/// A film as it was made.
struct FilmMade {
    int width = 0, height = 0;
    int quality = 0;
    std::int64_t bytes = 0;
    int tries = 1; ///< how often it was rendered until it fitted
    std::vector<Chapter> chapters;
    std::vector<Caption> captions;
};

/// Title card, the delivery once at full speed, each said stop in the running order after its moment in
/// motion, closing card with the week: H.264 and AAC in MP4 with fast start, a chapter each, and captions as
/// a text track. One that is larger than `mostBytes` is made again, coarser, then smaller. Whole or not at
/// all. Needs loadFonts(); may run in any one thread. `progress` gets 0..1. Errors: Refused (nothing is said;
/// too long for its size), Cancelled, DiskFull, WriteFailed, Damaged, NotFound (a take or the clip).
Result<FilmMade> renderNarratedFilm(const FilmRecipe& recipe, const std::filesystem::path& path,
                                    FileStore& files, std::stop_token stop = {},
                                    const std::function<void(double)>& progress = {});

/// The captions of the film as a WebVTT file's text. Errors: Refused (nothing is said), those of opening the
/// films.
Result<std::string> filmCaptions(const FilmRecipe& recipe);

} // namespace jg
