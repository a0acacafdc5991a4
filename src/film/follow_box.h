// SPDX-License-Identifier: GPL-3.0-or-later
// A box round somebody followed through a film.
#pragma once

#include "film/film_place.h"
#include "film/film_source.h"

#include <cstdint>
#include <functional>
#include <map>
#include <stop_token>
#include <vector>

namespace jg {

/// An upright box in source pixels: its upper left and lower right corner.
struct FilmBox {
    FilmPlace from, to;
};

/// What became of a box. It has one on every frame of the stretch but between two of which it was lost and
/// found again, and beyond where it was lost or has left the picture.
struct FollowedBox {
    std::map<std::int64_t, FilmBox> boxes;
    std::vector<std::int64_t>
        lost; ///< rising: the first frames without one, where it is still in the picture
};

/// Follows a box from each frame it was drawn on to both sides, as far as the next of them or the ends of the
/// stretch; between two it is what the nearer of the two ways says, and lost where the ways do not meet. Runs
/// in the readers' thread. `drawn` must not be empty and lies within the stretch. `progress` 0..1. Errors:
/// BadInput (a frame out of range), Cancelled, those of Reader.
/// Source: the median of many flows with forward-backward check (Kalal, Mikolajczyk, Matas 2010, from
/// memory), over pyramidal Lucas-Kanade as OpenCV gives it.
Result<FollowedBox> followBox(const FilmSource& source, const std::map<std::int64_t, FilmBox>& drawn,
                              std::int64_t first, std::int64_t last, std::stop_token stop = {},
                              const std::function<void(double)>& progress = {});

} // namespace jg
