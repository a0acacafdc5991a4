// Has it really changed? Statistics of repeated measuring.
#pragma once

#include "coaching/target.h"

#include <string_view>

namespace jg {

/// Smallest real change between two values with standard errors sd1 and sd2, at 95 %:
/// 1.96 x sqrt(sd1^2 + sd2^2); with both equal to the SEM this is 1.96 x sqrt(2) x SEM (Weir 2005).
double smallestRealChange(double sd1, double sd2);

/// True when the difference is larger than the smallest real change.
bool reallyChanged(double before, double sdBefore, double after, double sdAfter);

/// What a change means for what is wanted.
enum class Trend { InsideError, Better, Worse, Changed };

/// Better when it came nearer to the target, worse when it went further off; changed when the target asks
/// nothing, is met both times, or is missed as far on the other side. `target` is in the unit of the numbers.
/// Pure. Source: Weir 2005 for what counts as a change; the direction is our own choice.
Trend trendOf(const Target& target, double before, double sdBefore, double after, double sdAfter);

/// "inside the error", "better", "worse", "changed".
Message nameOf(Trend trend);

} // namespace jg
