// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/approach_rows.h"

#include "kinematics/answers.h"

#include <algorithm>

namespace jg {

std::optional<Target> exchangeTarget(Approach& approach, const std::string& measure,
                                     std::optional<Target> value) {
    auto& targets = approach.targets;
    const auto at =
        std::find_if(targets.begin(), targets.end(), [&](const Target& t) { return t.measure == measure; });
    std::optional<Target> before;
    if (at != targets.end()) before = *at;
    if (before && value)
        *at = *std::move(value);
    else if (before)
        targets.erase(at);
    else if (value)
        targets.push_back(*std::move(value));
    return before;
}

bool asksFor(const Approach& approach, const std::string& id) {
    return approach.targetOf(id) || isAmong(approach.graded, id);
}

} // namespace jg
