// SPDX-License-Identifier: GPL-3.0-or-later
// What a person changed of an athlete, brought together with what somebody else changed meanwhile.
#pragma once

#include "base/result.h"
#include "review/record/people.h"

namespace jg {

/// An athlete as a form showed them and as it was left. Value type.
struct AthleteEdit {
    Athlete shown, typed;
    bool mineStands = false; ///< what was changed elsewhere to something else was told, and this one counts
};

/// Puts the fields that differ between `shown` and `typed` into `now`, each for itself; of lists (heights,
/// outings, targets, baselines) the entries that came and went. All other fields stay what they are. Errors:
/// Stale, with both values, when a field was changed elsewhere to something else and mine does not stand;
/// then `now` is left as it was. Pure.
Status applyEdit(const AthleteEdit& edit, Athlete& now);

} // namespace jg
