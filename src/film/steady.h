// SPDX-License-Identifier: GPL-3.0-or-later
// How the camera shook: the way of the background from frame to frame.
#pragma once

#include "film/film_place.h"
#include "film/film_source.h"

#include <functional>
#include <stop_token>
#include <vector>

namespace jg {

/// How far the background lies from where it lay on the first frame.
struct CameraShift {
    std::int64_t frame = 0;
    FilmPlace by;    ///< source pixels
    double sdPx = 0; ///< on each axis
};

/// The shift of every frame from `first` to `last` against `first`: the median way of corners of what stands
/// still (up to 80 patches, pyramidal Lucas-Kanade with forward-backward check). Turns of the camera are not
/// in it. Runs in the readers' thread. `progress` 0..1. Errors: BadInput (frames the film does not have),
/// Refused (fewer than 8 patches can be followed), Cancelled, those of Reader.
Result<std::vector<CameraShift>> cameraShake(const FilmSource& source, std::int64_t first, std::int64_t last,
                                             std::stop_token stop = {},
                                             const std::function<void(double)>& progress = {});

} // namespace jg
