// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/known_veils.h"

#include "review/assess/assess.h"
#include "review/record/deliveries.h"

namespace jg {

Result<Veils> KnownVeils::on(const Clip& film, const AthleteId& athlete, const ReviewId& but) {
    auto known = read_.find(athlete);
    if (known == read_.end()) {
        auto reviews = store_.reviewsOf(athlete);
        if (!reviews) return reviews.error();
        known = read_.emplace(athlete, std::move(*reviews)).first;
    }
    Veils all;
    for (const ReviewOfAthlete& r : known->second) {
        if (r.summary.id == but || r.submission.clips.empty()) continue;
        for (const DeliveryMarks& d : r.deliveries)
            if (filmOf(d, r.submission.clips).mediaHash == film.mediaHash)
                for (const auto& [id, veil] : d.veils) all[r.summary.id.value + "-" + id] = veil;
    }
    return all;
}

} // namespace jg
