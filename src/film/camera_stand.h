// SPDX-License-Identifier: GPL-3.0-or-later
// How the camera stood, as the lines of the place tell.
#pragma once

#include <optional>

namespace jg {

/// Lines of the place: how far the camera is turned. Nothing when there are too few lines.
struct PlaceLines {
    std::optional<double> tiltDeg;   ///< clockwise, from the upright lines
    std::optional<double> turnedDeg; ///< away from square, from level lines running together; about
};

} // namespace jg
