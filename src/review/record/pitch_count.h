// SPDX-License-Identifier: GPL-3.0-or-later
// Outings as they were told, in words, with what guidance says of the rest after them.
#pragma once

#include "review/record/people.h"

namespace jg {

/// "21 November 2026: 54 pitches. It felt: arm heavy at the end." Pure.
Message inWords(const PitchCount& outing);

/// What published guidance asks for after an outing, and that the league's rules come first; empty where none
/// is known or the days of rest are over by `today`. Pure.
Message restInWords(const PitchCount& outing, int age, Date today);

} // namespace jg
