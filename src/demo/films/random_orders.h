// SPDX-License-Identifier: GPL-3.0-or-later
// Random deliveries for tests and measurements.
#pragma once

#include "demo/films/film_maker.h"

#include <cstdint>

namespace jg {

/// The n-th order of a seed: random body, habits, hand, view and rate. Pure.
FilmOrder randomOrder(std::uint64_t seed, int n);

} // namespace jg
