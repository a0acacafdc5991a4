#include "review/positions.h"

namespace jg {

namespace {

Error wrongOrder(Moment moment, const char* relation, Moment other, std::int64_t frame) {
    return fail(ErrorCode::Refused, std::string(info(moment).name) + " can't come " + relation + " " +
                                        std::string(info(other).name) + " (frame " + std::to_string(frame) +
                                        "). Move that one first, or choose another frame.");
}

/// Hands may part before, at or after the deepest load; all other neighbours keep their order.
bool ordered(Moment a, Moment b) {
    const bool partAndLoad =
        (a == Moment::HandBreak && b == Moment::Load) || (a == Moment::Load && b == Moment::HandBreak);
    return isKeyPosition(a) && isKeyPosition(b) && !partAndLoad;
}

} // namespace

Status mayLieAt(const Review& review, Moment moment, std::int64_t frame, std::int64_t frames) {
    if (frame < 0 || frame >= frames)
        return fail(ErrorCode::BadInput, "The film has no frame " + std::to_string(frame) + ".");
    for (const auto& [other, mark] : review.moments) {
        if (other == moment || !mark.frame) continue;
        if (!ordered(moment, other)) continue;
        if (other<moment&& * mark.frame> frame) return wrongOrder(moment, "before", other, *mark.frame);
        if (other > moment && *mark.frame < frame) return wrongOrder(moment, "after", other, *mark.frame);
    }
    if (moment == Moment::HandAboveShoulder) {
        const auto plant = review.frameOf(Moment::Release);
        if (plant && frame > *plant) return wrongOrder(moment, "after", Moment::Release, *plant);
    }
    return Done{};
}

} // namespace jg
