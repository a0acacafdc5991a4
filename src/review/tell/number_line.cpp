// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/number_line.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// Lowest and highest of what must be seen.
std::pair<double, double> endsOf(const NumberLine& n) {
    double low = n.value - n.half95, high = n.value + n.half95;
    for (const auto& limit : {n.least, n.most})
        if (limit) low = std::min(low, *limit), high = std::max(high, *limit);
    return {low, high};
}

/// Room at each end, so that an open side of what is wanted is seen to go on.
double roomOf(const NumberLine& n) {
    constexpr double kShare = 0.3;
    const auto [low, high] = endsOf(n);
    return std::max(kShare * (high - low), 1e-6);
}

} // namespace

double NumberLine::from() const {
    return endsOf(*this).first - roomOf(*this);
}

double NumberLine::to() const {
    return endsOf(*this).second + roomOf(*this);
}

std::optional<NumberLine> numberLineOf(const MeasureRow& row) {
    if (!row.value.value) return std::nullopt;
    const auto target = targetIn(row.target, row.value.unit);
    if (!target) return std::nullopt;
    NumberLine n{*row.value.value, row.value.half95(), {}, {}, row.value.unit};
    if (target->type == TargetType::AtLeast || target->type == TargetType::Band) n.least = target->x;
    if (target->type == TargetType::AtMost) n.most = target->x;
    if (target->type == TargetType::Band) n.most = target->y;
    return n.least || n.most ? std::optional(n) : std::nullopt;
}

} // namespace jg
