// SPDX-License-Identifier: GPL-3.0-or-later
// Points followed through a film by optical flow, between frames where they were clicked.
#pragma once

#include "film/film_place.h"
#include "film/film_source.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <utility>
#include <vector>

namespace jg {

/// A point known on two frames.
struct FollowOrder {
    std::int64_t from = 0, to = 0;
    FilmPlace start, end;
    double clickSdPx = 2; ///< of both ends
};

struct FollowedPlace {
    std::int64_t frame = 0;
    FilmPlace at;
    double sdPx = 0; ///< click error at the ends; between them what the two ways disagree by comes in
};

/// What became of one order. Without `lost` there is a place for every frame from first to last.
struct Followed {
    std::vector<FollowedPlace> places;
    std::optional<std::pair<std::int64_t, std::int64_t>> lost; ///< first and last frame without a place
};

/// Longest stretch that is followed at once: memory (own choice).
inline constexpr std::int64_t kMostFollowed = 1200;

/// Follows each point from both of its ends and joins the two ways, weighted by how near each end is. A way
/// ends where the flow forth and back disagrees, or jumps. Runs in the readers' thread. `progress` 0..1.
/// Errors: BadInput (a frame out of range, too long), Cancelled, those of Reader.
/// Source: pyramidal Lucas-Kanade with forward-backward check, as OpenCV gives it.
Result<std::vector<Followed>> followPoints(const FilmSource& source, const std::vector<FollowOrder>& orders,
                                           std::stop_token stop = {},
                                           const std::function<void(double)>& progress = {});

} // namespace jg
