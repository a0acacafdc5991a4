// SPDX-License-Identifier: GPL-3.0-or-later
// What can still be read of a damaged document, beside what its row knows.
#pragma once

#include "base/result.h"
#include "review/record/people.h"

#include <string_view>

namespace jg {

/// An athlete from a document that does not read: `known` (id, name) with every field that still reads. A
/// date of birth that is lost counts as today, so that they are a child until it is entered: no letter goes
/// out and no drill fits. Errors: Damaged when what the row knows is no document. Pure.
Result<Athlete> salvagedAthlete(std::string_view text, Athlete known, Date today);

/// A submission alike: `known` has id, athlete, days, and clips with id, film and extension. A clip of which
/// nothing more reads has no frames (0) and must be looked at again. A report of pain that may be lost counts
/// as one, in the words `painLost`, until the coach closes it. Errors: as above. Pure.
Result<Submission> salvagedSubmission(std::string_view text, Submission known, const std::string& painLost);

} // namespace jg
