// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/film_owner.h"

#include <algorithm>

namespace jg {

Result<std::optional<Athlete>> otherOwner(Store& store, const std::string& mediaHash,
                                          const AthleteId& athlete) {
    auto owners = store.athletesOfMedia(mediaHash);
    if (!owners) return owners.error();
    const auto other = std::find_if(owners->begin(), owners->end(),
                                    [&](const AthleteId& owner) { return owner != athlete; });
    if (other == owners->end()) return std::optional<Athlete>();
    auto who = store.athlete(*other);
    if (!who) return who.error();
    return std::optional(std::move(*who));
}

} // namespace jg
