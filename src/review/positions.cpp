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

std::string spanText(const FrameSpan& span) {
    return std::to_string(span.first) + " to " + std::to_string(span.last);
}

} // namespace

Status mayCut(const DeliveryMarks& delivery, const FrameSpan& span) {
    for (const auto& [moment, mark] : delivery.moments)
        if (mark.frame && !span.holds(*mark.frame))
            return fail(ErrorCode::Refused, std::string(info(moment).name) + " (frame " +
                                                std::to_string(*mark.frame) + ") is not in frames " +
                                                spanText(span) + ". Take that position away first.");
    return Done{};
}

Status mayLieAt(const DeliveryMarks& delivery, Moment moment, std::int64_t frame, std::int64_t frames) {
    if (frame < 0 || frame >= frames)
        return fail(ErrorCode::BadInput, "The film has no frame " + std::to_string(frame) + ".");
    if (delivery.cut && !delivery.cut->holds(frame))
        return fail(ErrorCode::Refused, "Frame " + std::to_string(frame) +
                                            " is not in the delivery under review (frames " +
                                            spanText(*delivery.cut) +
                                            "). Choose the other delivery in Look, or take the whole film.");
    for (const auto& [other, mark] : delivery.moments) {
        if (other == moment || !mark.frame) continue;
        if (!ordered(moment, other)) continue;
        const std::int64_t there = *mark.frame;
        if (other < moment && there > frame) return wrongOrder(moment, "before", other, there);
        if (other > moment && there < frame) return wrongOrder(moment, "after", other, there);
    }
    if (moment == Moment::HandAboveShoulder) {
        const auto plant = delivery.frameOf(Moment::Release);
        if (plant && frame > *plant) return wrongOrder(moment, "after", Moment::Release, *plant);
    }
    return Done{};
}

} // namespace jg
