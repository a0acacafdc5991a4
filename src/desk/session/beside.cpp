// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/beside.h"

#include <algorithm>

namespace jg {

Result<std::vector<JuxtaOffer>> besideOffers(Store& store, const Review& review) {
    auto athlete = store.athlete(review.athlete);
    if (!athlete) return athlete.error();
    auto offers = juxtaOffersOf(store, *athlete);
    if (!offers) return offers.error();
    std::erase_if(*offers, [&](const JuxtaOffer& o) { return o.when > review.date; });
    std::stable_sort(offers->begin(), offers->end(), [&](const JuxtaOffer& a, const JuxtaOffer& b) {
        const auto rank = [&](const JuxtaOffer& o) {
            return o.key.review == review.id ? 2 : o.baseline.empty() ? 1 : 0;
        };
        return rank(a) != rank(b) ? rank(a) < rank(b) : a.when > b.when;
    });
    return offers;
}

Result<JuxtaEntry> besideEntry(Store& store, const Playbook& playbook, const AthleteId& athlete,
                               const Beside& beside) {
    auto entries = juxtaEntries(store, playbook, {{beside.review, beside.delivery}});
    if (!entries) return entries.error();
    if (entries->front().athlete != athlete) return fail(ErrorCode::Refused, msg("beside.of-another"));
    return std::move(entries->front());
}

ToldBeside toldBeside(const Library& library, const Playbook& playbook, const Stop& stop,
                      const ThenAndNow& both, const std::set<std::string>& overruled) {
    ToldBeside told;
    told.marks = both.then.marks;
    told.assessment = both.then.results;
    told.clip = library.mediaPath(both.then.clip);
    told.captureFps = both.then.clip.captureFps;
    told.then = thenCaption(both.then, both.now);
    told.now = nowCaption(both.then, both.now);
    const auto changes = besideChanges(stop, both, playbook, overruled);
    told.shortly = changeInShort(changes, playbook, told.then);
    told.changes = toldChanges(stop, both, changes, playbook, 1);
    return told;
}

std::set<std::string> overruledOf(const Athlete& athlete) {
    std::set<std::string> measures;
    for (const Overruled& o : athlete.overruled) measures.insert(o.measure);
    return measures;
}

} // namespace jg
