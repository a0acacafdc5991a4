// SPDX-License-Identifier: GPL-3.0-or-later
// A number against what is wanted: where you are, how sure, where we want you.
#pragma once

#include "review/assess/assess.h"

#include <optional>

namespace jg {

/// All in the number's own unit.
struct NumberLine {
    double value = 0, half95 = 0;
    std::optional<double> least, most; ///< of what is wanted; one is nothing when that side is open
    std::string unit;                  ///< deg | % | ms | in | x
    bool operator==(const NumberLine&) const = default;

    /// The stretch that shows all of it, with room at both ends.
    double from() const;
    double to() const;
};

/// Nothing without a number or a wanted range. Pure.
std::optional<NumberLine> numberLineOf(const MeasureRow& row);

} // namespace jg
