// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/unit_words.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace jg {

Message withUnit(Decimal number, const std::string& unit) {
    static constexpr std::array<std::string_view, 9> known = {"deg",    "in",  "cm",  "ms",   "s",
                                                              "frames", "rpm", "mph", "turns"};
    if (unit.empty() || unit == "x") return asIs(number);
    if (unit == "%") return msg("unit.percent", {{"number", number}});
    if (std::find(known.begin(), known.end(), unit) != known.end())
        return msg("unit." + unit, {{"number", number}});
    return msg("unit.other", {{"number", number}, {"unit", unit}});
}

} // namespace jg
