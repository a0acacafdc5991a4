// SPDX-License-Identifier: GPL-3.0-or-later
// How far beside its target a number lies, beside its own error.
#pragma once

namespace jg {

/// A gap in standard deviations as one in errors as they are shown: half widths of 95 %. Pure.
constexpr double inErrors(double gapInSds) {
    return gapInSds / 1.96;
}

} // namespace jg
