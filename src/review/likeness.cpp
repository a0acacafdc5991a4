#include "review/likeness.h"

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
    return std::nullopt;
}

bool isLength(const std::string& unit) {
    return unit == "in" || unit == "cm";
}

} // namespace jg
