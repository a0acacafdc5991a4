#include "review/positions.h"

namespace jg {

namespace {

Error wrongOrder(Moment moment, bool before, Moment other, std::int64_t frame) {
    return fail(ErrorCode::Refused,
                msg(before ? "positions.not-before" : "positions.not-after",
                    {{"position", info(moment).name()}, {"other", info(other).name()}, {"frame", frame}}));
}

/// Hands may part before, at or after the deepest load; all other neighbours keep their order.
bool ordered(Moment a, Moment b) {
    const bool partAndLoad =
        (a == Moment::HandBreak && b == Moment::Load) || (a == Moment::Load && b == Moment::HandBreak);
    return isKeyPosition(a) && isKeyPosition(b) && !partAndLoad;
}

Message spanText(const FrameSpan& span) {
    return msg("positions.span", {{"first", span.first}, {"last", span.last}});
}

} // namespace

Status mayCut(const DeliveryMarks& delivery, const FrameSpan& span) {
    for (const auto& [moment, mark] : delivery.moments)
        if (mark.frame && !span.holds(*mark.frame))
            return fail(
                ErrorCode::Refused,
                msg("positions.moment-frame-frame-is-not-in",
                    {{"position", info(moment).name()}, {"frame", *mark.frame}, {"span", spanText(span)}}));
    return Done{};
}

Status mayLieAt(const DeliveryMarks& delivery, Moment moment, std::int64_t frame, std::int64_t frames) {
    if (frame < 0 || frame >= frames)
        return fail(ErrorCode::BadInput, msg("positions.the-film-has-no-frame-frame", {{"frame", frame}}));
    if (delivery.cut && !delivery.cut->holds(frame))
        return fail(ErrorCode::Refused, msg("positions.frame-frame-is-not-in-the",
                                            {{"frame", frame}, {"cut", spanText(*delivery.cut)}}));
    for (const auto& [other, mark] : delivery.moments) {
        if (other == moment || !mark.frame) continue;
        if (!ordered(moment, other)) continue;
        const std::int64_t there = *mark.frame;
        if (other < moment && there > frame) return wrongOrder(moment, true, other, there);
        if (other > moment && there < frame) return wrongOrder(moment, false, other, there);
    }
    if (moment == Moment::HandAboveShoulder) {
        const auto plant = delivery.frameOf(Moment::Release);
        if (plant && frame > *plant) return wrongOrder(moment, false, Moment::Release, *plant);
    }
    return Done{};
}

} // namespace jg
