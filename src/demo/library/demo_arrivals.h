// SPDX-License-Identifier: GPL-3.0-or-later
// Who comes to the Tram Shed in the demo, and what they bring.
#pragma once

#include "base/date.h"
#include "demo/films/film_maker.h"
#include "demo/library/demo_review.h"
#include "review/record/people.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// One submission of the demo with its films.
struct DemoArrival {
    Athlete athlete;
    std::vector<FilmOrder> films;
    std::string asked, pain;
    Start start;
    Surface surface;
    std::optional<Date> promised;
    Date received;
    std::optional<DemoReviewWish> review; ///< nothing = it waits untouched
};

/// All of them and their athletes: the same from the same seed and day. `ownMeasure` is taken in one review.
std::vector<DemoArrival> demoArrivals(std::uint64_t seed, Date today, const std::string& ownMeasure,
                                      IdSource& ids, std::vector<Athlete>& people);

} // namespace jg
