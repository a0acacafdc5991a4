#include "coaching/change.h"

#include "kinematics/estimate.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

double smallestRealChange(double sd1, double sd2) {
    return kSdsOf95 * std::hypot(sd1, sd2);
}

bool reallyChanged(double before, double sdBefore, double after, double sdAfter) {
    return std::abs(after - before) > smallestRealChange(sdBefore, sdAfter);
}

namespace {

/// How far outside the target; 0 inside, or when it asks nothing.
double outside(const Target& target, double value) {
    switch (target.type) {
    case TargetType::AtLeast:
        return std::max(0.0, target.x - value);
    case TargetType::AtMost:
        return std::max(0.0, value - target.x);
    case TargetType::Band:
        return std::max({0.0, target.x - value, value - target.y});
    case TargetType::Options:
    case TargetType::Any:
    case TargetType::Record:
        break;
    }
    return 0;
}

} // namespace

Trend trendOf(const Target& target, double before, double sdBefore, double after, double sdAfter) {
    if (!reallyChanged(before, sdBefore, after, sdAfter)) return Trend::InsideError;
    const double was = outside(target, before), is = outside(target, after);
    if (is < was) return Trend::Better;
    return is > was ? Trend::Worse : Trend::Changed;
}

Message nameOf(Trend trend) {
    static constexpr std::array<const char*, 4> ids = {"trend.inside-error", "trend.better", "trend.worse",
                                                       "trend.changed"};
    return msg(ids.at(static_cast<std::size_t>(trend)));
}

} // namespace jg
