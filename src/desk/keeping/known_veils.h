// SPDX-License-Identifier: GPL-3.0-or-later
// Who was hidden on a film, in whichever review.
#pragma once

#include "library/store.h"

#include <map>
#include <string>
#include <vector>

namespace jg {

/// Veils by film over all of an athlete's reviews; each athlete's are read once. One thread.
class KnownVeils {
public:
    explicit KnownVeils(Store& store)
        : store_(store) {}
    /// All that lie on the film in reviews but `but`, named by their review. Errors: those of reading.
    Result<Veils> on(const Clip& film, const AthleteId& athlete, const ReviewId& but);

private:
    Store& store_;
    std::map<AthleteId, std::vector<ReviewOfAthlete>> read_;
};

} // namespace jg
