#include "review/likeness.h"

namespace jg {

std::optional<Unlike> firstUnlike(const Likeness& one, const Likeness& other) {
    if (one.view != other.view) return Unlike::Side;
    if (one.approach != other.approach) return Unlike::Approach;
    if (!alike(one.conditions, other.conditions)) return Unlike::Conditions;
    if (one.unit != other.unit) return Unlike::Unit;
    return std::nullopt;
}

} // namespace jg
