// SPDX-License-Identifier: GPL-3.0-or-later
// What may be done with an athlete's films on a day.
#pragma once

#include "base/message.h"
#include "review/record/people.h"

namespace jg {

/// How a use stands on a day. Silent: nothing is on record; OwnWord: only the child said so, whose guardian
/// must.
enum class Allowed { Yes, Silent, No, Ended, TakenBack, GrownUp, OwnWord };

/// Pure. Common practice, no source: the law of the place and the club's own rules come first.
Allowed allowedOn(const Athlete& athlete, Use use, Date today);

/// Why not, and where to mend it, as a sentence; empty for Yes. Pure.
Message whyNotAllowed(const Athlete& athlete, Use use, Date today);

/// "filming and showing, by Parent of Ludo, until 3 May 2027"; what ended or was taken back says so. Empty
/// without a record. Pure.
Message consentInWords(const Athlete& athlete, Date today);

} // namespace jg
