// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/juxta_cell.h"

#include "review/record/camera_place.h"

#include <algorithm>

namespace jg {

namespace {

/// The middle of what is clicked on a frame, else of the body at Set, else of the picture.
double middleOf(const JuxtaEntry& e, std::int64_t frame) {
    double low = 0, high = 0;
    bool any = false;
    for (const auto& [key, mark] : e.marks.points) {
        if (key.frame != frame || !mark.hidden.empty() || key.landmark == Landmark::Rubber) continue;
        low = any ? std::min(low, mark.point.at.x) : mark.point.at.x;
        high = any ? std::max(high, mark.point.at.x) : mark.point.at.x;
        any = true;
    }
    if (any) return (low + high) / 2;
    const auto body = standingAtSet(e.marks);
    return body ? body->middle().x : e.clip.width / 2.0;
}

} // namespace

JuxtaCell cellAt(const JuxtaEntry& e, std::int64_t frame) {
    return {frame, middleOf(e, frame), {}};
}

std::optional<JuxtaFit> juxtaFitOf(const JuxtaEntry& e, Hand leading) {
    const auto body = standingAtSet(e.marks);
    if (!body || body->height().value <= 0) return std::nullopt;
    return JuxtaFit{body->height().value, body->ground.at.y, body->middle().x, e.hand != leading};
}

double bodyMiddleAt(const JuxtaEntry& e, std::int64_t frame) {
    constexpr int kFew = 3; // points that tell no body
    std::map<std::int64_t, int> counts;
    for (const auto& [key, mark] : e.marks.points)
        if (mark.hidden.empty() && key.landmark != Landmark::Rubber) ++counts[key.frame];
    std::optional<std::int64_t> before, after;
    for (const auto& [n, count] : counts) {
        if (count < kFew && n != e.marks.frameOf(Moment::Set)) continue;
        if (n <= frame) before = n;
        if (n >= frame && !after) after = n;
    }
    if (!before && !after) return middleOf(e, frame);
    if (!before || !after || *before == *after) return middleOf(e, before ? *before : *after);
    const double part = static_cast<double>(frame - *before) / static_cast<double>(*after - *before);
    return middleOf(e, *before) + part * (middleOf(e, *after) - middleOf(e, *before));
}

} // namespace jg
