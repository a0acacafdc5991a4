// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/measure_value.h"

#include <algorithm>
#include <numeric>

namespace jg {

std::string_view idOf(MeasureState state) {
    switch (state) {
    case MeasureState::NotLookedAt:
        return "notLookedAt";
    case MeasureState::Measured:
        return "measured";
    case MeasureState::NotVisible:
        return "notVisible";
    case MeasureState::NotApplicable:
        break;
    }
    return "notApplicable";
}

MeasureValue withoutValue(const MeasureDefinition& m, MeasureState state, Message reason) {
    MeasureValue result;
    result.id = m.id;
    result.unit = m.unit;
    result.state = state;
    result.reason = std::move(reason);
    return result;
}

MeasureValue withValue(const MeasureDefinition& m, Estimate e, std::string unit) {
    MeasureValue result;
    result.id = m.id;
    result.unit = std::move(unit);
    result.state = MeasureState::Measured;
    result.value = e.value;
    result.sd = e.sd;
    result.low95 = e.value - e.half95();
    result.high95 = e.value + e.half95();
    return result;
}

double covariance(const Depth& a, const Depth& b) {
    const std::size_t ways = std::min(a.shared.size(), b.shared.size());
    return std::inner_product(a.shared.begin(), a.shared.begin() + static_cast<std::ptrdiff_t>(ways),
                              b.shared.begin(), 0.0);
}

} // namespace jg
