// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/positions.h"

#include <algorithm>

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
    for (const auto& [moment, mark] : delivery.moments) {
        std::vector<std::int64_t> frames = mark.again;
        if (mark.frame) frames.push_back(*mark.frame);
        for (const std::int64_t frame : frames)
            if (!span.holds(frame))
                return fail(
                    ErrorCode::Refused,
                    msg("positions.position-outside",
                        {{"position", info(moment).name()}, {"frame", frame}, {"span", spanText(span)}}));
    }
    return Done{};
}

namespace {

Status isReviewed(const DeliveryMarks& delivery, std::int64_t frame, std::int64_t frames) {
    if (frame < 0 || frame >= frames)
        return fail(ErrorCode::BadInput, msg("positions.the-film-has-no-frame-frame", {{"frame", frame}}));
    if (delivery.cut && !delivery.cut->holds(frame))
        return fail(ErrorCode::Refused,
                    msg("positions.outside-cut", {{"frame", frame}, {"cut", spanText(*delivery.cut)}}));
    return Done{};
}

} // namespace

MomentMark movedTo(const MomentMark& mark, std::int64_t frame) {
    MomentMark moved{frame, {}, mark.again};
    if (std::erase(moved.again, frame) == 0 || !mark.frame) return moved;
    moved.again.push_back(*mark.frame);
    std::sort(moved.again.begin(), moved.again.end());
    return moved;
}

bool isAgain(const MomentMark& mark, std::int64_t frame) {
    return std::find(mark.again.begin(), mark.again.end(), frame) != mark.again.end();
}

Result<MomentMark> happeningAgain(const DeliveryMarks& delivery, Moment moment, std::int64_t frame,
                                  std::int64_t frames) {
    if (auto may = isReviewed(delivery, frame, frames); !may) return may.error();
    const auto at = delivery.moments.find(moment);
    if (at == delivery.moments.end() || !at->second.frame)
        return fail(ErrorCode::Refused,
                    msg("positions.again-before-first", {{"position", info(moment).name()}}));
    MomentMark mark = at->second;
    if (mark.frame == frame)
        return fail(ErrorCode::Refused,
                    msg("positions.again-here", {{"position", info(moment).name()}, {"frame", frame}}));
    if (std::erase(mark.again, frame) == 0) mark.again.push_back(frame);
    std::sort(mark.again.begin(), mark.again.end());
    return mark;
}

Status mayLieAt(const DeliveryMarks& delivery, Moment moment, std::int64_t frame, std::int64_t frames) {
    if (auto may = isReviewed(delivery, frame, frames); !may) return may;
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
