#include "desk/known_veils.h"

#include <algorithm>

namespace jg {

namespace {

bool isOn(const DeliveryMarks& delivery, const std::vector<Clip>& clips, const Clip& film) {
    const auto clip =
        std::find_if(clips.begin(), clips.end(), [&](const Clip& c) { return c.id == delivery.clip; });
    return clip != clips.end() && clip->mediaHash == film.mediaHash;
}

} // namespace

Result<Veils> KnownVeils::on(const Clip& film, const AthleteId& athlete, const ReviewId& but) {
    auto known = read_.find(athlete);
    if (known == read_.end()) {
        auto reviews = store_.reviewsOf(athlete);
        if (!reviews) return reviews.error();
        known = read_.emplace(athlete, std::move(*reviews)).first;
    }
    Veils all;
    for (const ReviewOfAthlete& r : known->second) {
        if (r.summary.id == but) continue;
        for (const DeliveryMarks& d : r.deliveries)
            if (isOn(d, r.submission.clips, film))
                for (const auto& [id, veil] : d.veils) all[r.summary.id.value + "-" + id] = veil;
    }
    return all;
}

} // namespace jg
