// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/likeness.h"

#include <algorithm>
#include <cmath>

namespace jg {

std::optional<Unlike> firstUnlike(const Likeness& one, const Likeness& other) {
    if (one.view != other.view) return Unlike::Side;
    if (one.approach != other.approach) return Unlike::Approach;
    if (!alike(one.conditions, other.conditions)) return Unlike::Conditions;
    if (one.unit != other.unit) return Unlike::Unit;
    if (!one.definition.empty() && !other.definition.empty() && one.definition != other.definition)
        return Unlike::Definition;
    if (one.heightM > 0 && other.heightM > 0 && std::abs(one.heightM - other.heightM) > kGrownM)
        return Unlike::Height;
    if (!one.turnSaid || !other.turnSaid) return Unlike::Turn;
    return std::nullopt;
}

bool turnSaidAt(const MeasureValue& value) {
    return std::none_of(value.warnings.begin(), value.warnings.end(),
                        [](const Message& m) { return m.id == kTurnUnsaid; });
}

bool isLength(const std::string& unit) {
    return unit == "in" || unit == "cm";
}

Message whyNotComparable(const Likeness& one, const Likeness& other) {
    const auto unlike = firstUnlike(one, other);
    if (!unlike) return {};
    switch (*unlike) {
    case Unlike::Side:
        return msg("juxta.other-side");
    case Unlike::Conditions:
        return msg("juxta.thrown-otherwise");
    case Unlike::Definition:
        return msg("juxta.other-definition");
    case Unlike::Height:
        return msg("juxta.grown");
    case Unlike::Turn:
        return msg("juxta.turn-unsaid");
    case Unlike::Approach:
    case Unlike::Unit:
        break;
    }
    return msg("juxta.other-unit");
}

} // namespace jg
