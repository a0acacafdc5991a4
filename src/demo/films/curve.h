// SPDX-License-Identifier: GPL-3.0-or-later
// A smooth curve through key values that never overshoots them.
#pragma once

#include <vector>

namespace jg {

/// Monotone cubic interpolation (Fritsch and Carlson 1980) through keys of rising time; constant outside.
class Curve {
public:
    void add(double time, double value);
    double at(double time) const;

private:
    double slope(std::size_t i) const;
    std::vector<double> times_;
    std::vector<double> values_;
};

} // namespace jg
