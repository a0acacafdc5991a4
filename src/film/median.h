// SPDX-License-Identifier: GPL-3.0-or-later
// The middle of many values. Inside the film room only.
#pragma once

#include <algorithm>
#include <vector>

namespace jg {

/// The upper median; `values` must not be empty.
inline double medianOf(std::vector<double> values) {
    const auto middle = values.begin() + std::ssize(values) / 2;
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

} // namespace jg
