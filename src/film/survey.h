// SPDX-License-Identifier: GPL-3.0-or-later
// One look through a whole film: what moves, how the camera is held, which frames are damaged.
#pragma once

#include "film/camera_stand.h"
#include "film/reader.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <vector>

namespace jg {

/// What one frame shows. Lengths are parts of the picture's width (x) or height (y) as shown.
struct FrameFacts {
    bool readable = true;
    bool damaged = false;     ///< the decoder had to guess parts of it
    double brightness = 0;    ///< mean, 0..1
    double largestChange = 0; ///< grey levels, in the most changed cell, against the frame before
    double motion = 0;        ///< part of the athlete's picture that changed
    double blend = 1;         ///< how far it is from the mean of its neighbours, relative to their difference
    double fastArea = 0;      ///< pixels of the small picture that the fastest limb alone takes up
    double fastClear = 0;     ///< how far they stand out from the background, against the slow parts
    double shiftX = 0;        ///< of the background against the first frame, part of the width
    double shiftY = 0;
    bool athlete = false; ///< a moving body was found: the box is valid
    double left = 0, right = 0, top = 0, bottom = 0;
    double feetLeft = 0, feetRight = 0; ///< ends of the body near the ground
};

/// Motion below which nothing that matters moves (own choice).
inline constexpr double kLeastMotion = 0.004;

struct FilmSurvey {
    std::vector<FrameFacts> frames; ///< of the first pictures, at most as many as asked for
    PlaceLines lines;
};

/// Decodes the first `most` frames once, in small: each takes some 40 kB of memory. Any thread that owns the
/// reader. Errors: Cancelled, Damaged (nothing decodes). Method: background as the median of some frames,
/// what differs from it is the athlete; corners of the background followed for the camera's shake (OpenCV).
Result<FilmSurvey> surveyFilm(Reader& reader, std::int64_t most, std::stop_token stop = {},
                              const std::function<void(double)>& progress = {});

} // namespace jg
