// SPDX-License-Identifier: GPL-3.0-or-later
// What published guidance for young pitchers says of pitches a day and rest. Guidance, never a permission:
// the league's own rules and licensed care come first.
#pragma once

#include "base/message.h"

#include <optional>

namespace jg {

/// Pitches a day and days of rest at one age.
struct ThrowingGuidance {
    int ageFrom = 0, ageTo = 0;
    int mostADay = 0;
    /// Most pitches after which so many days of rest are enough: [0] without rest ... [3] three days; above
    /// that four.
    int upTo[4] = {};

    /// Days of rest asked for after so many pitches.
    int restAfter(int pitches) const;
};

/// The row of an age. Nothing outside 7 to 22. Source: Pitch Smart guidelines, MLB and USA Baseball, from
/// memory.
std::optional<ThrowingGuidance> throwingGuidance(int age);

/// "Published guidance at 13 (Pitch Smart, from memory): at most 95 pitches a day ..."; for ages it does not
/// know that none is known. Always names the league's rules.
Message guidanceInWords(int age);

} // namespace jg
