// SPDX-License-Identifier: GPL-3.0-or-later
// What a coach changes of people, on the newest row of each.
#pragma once

#include "library/store.h"
#include "review/record/athlete_edit.h"

#include <string>

namespace jg {

/// Keeps what was typed of an athlete, field by field; another window's change of another field stays.
/// Errors: those of checkGuardian(), Stale with both words where one field was changed twice, those of Store.
Status keepAthlete(Store& store, const AthleteEdit& edit, Date today);

/// A report of pain ends in the coach's words; one that was ended before stays as it was. Errors: those of
/// Store.
Status closePain(Store& store, const SubmissionId& submission, const std::string& words, Date today);

} // namespace jg
