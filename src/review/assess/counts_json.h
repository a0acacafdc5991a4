// SPDX-License-Identifier: GPL-3.0-or-later
// The walk's counts as JSON. Inside the review room only.
#pragma once

#include "review/assess/assess.h"

#include <nlohmann/json.hpp>

#include <array>
#include <utility>

namespace jg {

inline constexpr std::array<std::pair<const char*, int Counts::*>, 12> kCounts = {
    {{"positions", &Counts::positions},
     {"positionsAll", &Counts::positionsAll},
     {"measures", &Counts::measures},
     {"measuresAll", &Counts::measuresAll},
     {"measuresNotVisible", &Counts::measuresNotVisible},
     {"judged", &Counts::judged},
     {"judgedAll", &Counts::judgedAll},
     {"said", &Counts::said},
     {"saidAll", &Counts::saidAll},
     {"corrections", &Counts::corrections},
     {"drills", &Counts::drills},
     {"drillsWithoutDose", &Counts::drillsWithoutDose}}};

inline nlohmann::json countsAsJson(const Counts& counts) {
    nlohmann::json row;
    for (const auto& [name, member] : kCounts) row[name] = counts.*member;
    return row;
}

inline Counts countsIn(const nlohmann::json& row) {
    Counts counts;
    for (const auto& [name, member] : kCounts) counts.*member = row.at(name);
    return counts;
}

} // namespace jg
