// SPDX-License-Identifier: GPL-3.0-or-later
// Deliveries in a film, and where their positions may lie: suggestions from motion, never taken by
// themselves.
#pragma once

#include "film/film_check.h"

#include <optional>
#include <vector>

namespace jg {

/// A frame with how sure it is.
struct SuggestedFrame {
    std::int64_t frame = 0;
    bool sure =
        false; ///< right within a frame at 60 a second, within three at 240, in 95 of 100 generated films
};

struct SuggestedDelivery {
    FrameRange cut; ///< from a little before the first motion to a little after the last
    std::optional<SuggestedFrame> set, liftTop, firstTouch, release;
};

/// From a film's survey. Only a side view tells first touch and what follows from it: first touch is where
/// the front of the feet stops travelling, the top of the lift where motion rests on the way there, release
/// where the hand shoots out in front. `playRate` in frames a second. Pure.
std::vector<SuggestedDelivery> findDeliveries(const FilmSurvey& survey, double playRate,
                                              bool fromSide = true);

} // namespace jg
