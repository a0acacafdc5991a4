// SPDX-License-Identifier: GPL-3.0-or-later
// A first guess for the point asked for: never counted until the coach takes it.
#pragma once

#include "review/assess/guide.h"
#include "review/record/review.h"

#include <optional>
#include <string_view>

namespace jg {

enum class GuessFrom { Path, Limb };

struct Guess {
    ImagePoint at;
    double sdPx = 0; ///< how far off it may be, on each axis
    GuessFrom from = GuessFrom::Path;
};

/// Where a landmark may lie on a frame: from its followed path; else from the nearest joint that is clicked
/// here, as the limb between them stood on the nearest frame on which both are. Nothing when neither is
/// known, or when that frame is further than `kFurthestGuess`. Pure.
std::optional<Guess> guessFor(const DeliveryMarks& delivery, Landmark landmark, std::int64_t frame);

/// Where a point placed by keys begins: its guess, else the same landmark on the nearest frame, else the
/// middle of what is clicked on its frame; nothing without any. Pure.
std::optional<ImagePoint> startFor(const DeliveryMarks& delivery, const GuideStep& step);

/// A limb's direction is not carried further than this: own choice.
inline constexpr std::int64_t kFurthestGuess = 40;

} // namespace jg
