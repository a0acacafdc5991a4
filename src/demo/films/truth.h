// SPDX-License-Identifier: GPL-3.0-or-later
// The exact truth of a generated film.
#pragma once

#include "demo/films/film_order.h"

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

namespace jg {

/// JSON with every joint in 3-D (metres) and in pixels at each frame the film holds (`held`, of the painted),
/// each event at sub-frame time, and each true angle (from 3-D points), as described in docs/formats.md.
std::string truthOf(const FilmOrder& order, const Delivery& delivery, const std::vector<std::int64_t>& held);

/// True values by measure id at the events' exact times: 3-D interior angles and tilts in degrees, percents
/// of height, milliseconds.
std::map<std::string, double> trueMeasures(const Delivery& delivery);

} // namespace jg
