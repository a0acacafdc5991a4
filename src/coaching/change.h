// Has it really changed? Statistics of repeated measuring.
#pragma once

namespace jg {

/// Smallest real change between two values with standard errors sd1 and sd2, at 95 %:
/// 1.96 x sqrt(sd1^2 + sd2^2); with both equal to the SEM this is 1.96 x sqrt(2) x SEM (Weir 2005).
double smallestRealChange(double sd1, double sd2);

/// True when the difference is larger than the smallest real change.
bool reallyChanged(double before, double sdBefore, double after, double sdAfter);

} // namespace jg
