// SPDX-License-Identifier: GPL-3.0-or-later
// A number with its error.
#pragma once

namespace jg {

/// Half of a 95 % interval in standard deviations (normal).
inline constexpr double kSdsOf95 = 1.959963984540054;

/// A value and its standard deviation, in one unit.
struct Estimate {
    double value = 0;
    double sd = 0;
    double half95() const { return kSdsOf95 * sd; }
};

} // namespace jg
