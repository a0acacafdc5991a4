// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/curve.h"

#include <algorithm>

namespace jg {

void Curve::add(double time, double value) {
    times_.push_back(time);
    values_.push_back(value);
}

double Curve::slope(std::size_t i) const {
    if (i == 0 || i + 1 == times_.size()) return 0;
    const double left = (values_[i] - values_[i - 1]) / (times_[i] - times_[i - 1]);
    const double right = (values_[i + 1] - values_[i]) / (times_[i + 1] - times_[i]);
    if (left * right <= 0) return 0;
    return 2 * left * right / (left + right);
}

double Curve::at(double time) const {
    if (times_.empty()) return 0;
    if (time <= times_.front()) return values_.front();
    if (time >= times_.back()) return values_.back();
    const auto i =
        static_cast<std::size_t>(std::upper_bound(times_.begin(), times_.end(), time) - times_.begin()) - 1;
    const double h = times_[i + 1] - times_[i];
    const double t = (time - times_[i]) / h;
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * values_[i] + (t3 - 2 * t2 + t) * h * slope(i) +
           (-2 * t3 + 3 * t2) * values_[i + 1] + (t3 - t2) * h * slope(i + 1);
}

} // namespace jg
