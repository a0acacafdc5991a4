// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/number_words.h"

#include "kinematics/answers.h"
#include "kinematics/unit_words.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// Digits behind the point in which a unit is told.
int decimalsOf(const std::string& unit) {
    return unit == "x" ? 1 : unit == "s" ? 2 : 0;
}

} // namespace

Message errorInWords(double half95, const std::string& unit) {
    const int decimals = decimalsOf(unit);
    return number(std::max(std::pow(10.0, -decimals), half95), decimals);
}

Message errorInWords(const MeasureValue& value) {
    return errorInWords(value.half95(), value.unit);
}

Message numberInWords(double value, const std::string& unit) {
    return withUnit(Decimal{value, decimalsOf(unit)}, unit);
}

Message labelOf(const MeasureValue& v) {
    if (!v.value) return {};
    return msg("label.number", {{"number", numberInWords(*v.value, v.unit)}, {"error", errorInWords(v)}});
}

} // namespace jg
