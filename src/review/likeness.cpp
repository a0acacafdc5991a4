#include "review/likeness.h"

namespace jg {

std::optional<Unlike> firstUnlike(const Likeness& one, const Likeness& other) {
    if (one.view != other.view) return Unlike::Side;
    if (one.approach != other.approach) return Unlike::Approach;
    if (!alike(one.conditions, other.conditions)) return Unlike::Conditions;
    if (one.unit != other.unit) return Unlike::Unit;
    if (!one.definition.empty() && !other.definition.empty() && one.definition != other.definition)
        return Unlike::Definition;
    return std::nullopt;
}

} // namespace jg
