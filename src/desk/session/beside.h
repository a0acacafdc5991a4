// SPDX-License-Identifier: GPL-3.0-or-later
// An earlier delivery beside a stop's own: read from the library, and only the athlete's own.
#pragma once

#include "desk/session/juxta.h"
#include "letter/film_recipe.h"
#include "review/tell/beside.h"

#include <vector>

namespace jg {

/// Deliveries of the athlete that may stand beside those of `review`: with a position, of no later day and
/// another review, or another delivery of its own; named ones first, then the newest. Errors: those of
/// reading the store.
Result<std::vector<JuxtaOffer>> besideOffers(Store& store, const Review& review);

/// A stop's other delivery. Errors: NotFound when its review, delivery or film is gone; Refused when it is
/// another athlete's, for that never leaves with this one's letter; those of reading the store.
Result<JuxtaEntry> besideEntry(Store& store, const Playbook& playbook, const AthleteId& athlete,
                               const Beside& beside);

/// The other delivery as the film and the letter draw it. Pure but for the path of its film.
ToldBeside toldBeside(const Library& library, const Playbook& playbook, const Stop& stop,
                      const ThenAndNow& both, const std::set<std::string>& overruled);

/// Measures that the athlete's coach compares although they are not alike.
std::set<std::string> overruledOf(const Athlete& athlete);

} // namespace jg
