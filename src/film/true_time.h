// SPDX-License-Identifier: GPL-3.0-or-later
// A film's frames in true seconds: as captured, whatever it plays at.
#pragma once

#include "film/film_info.h"

#include <vector>

namespace jg {

/// Whether it plays as fast as it was captured, or nobody knows (`captureFps` 0). Pure.
bool runsAtTrueSpeed(const FilmInfo& info, double captureFps);

/// True seconds of each frame from the first on: a slow-motion copy's times are squeezed. Pure.
std::vector<double> trueSeconds(const FilmInfo& info, double captureFps);

} // namespace jg
