// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/hide_person.h"

#include "film/follow_box.h"
#include "letter/veils.h"

#include <algorithm>

namespace jg {

namespace {

constexpr double kLeastSidePx = 8;
constexpr std::int64_t kEvery = 4;

ImagePoint middleOf(const PictureBox& b) {
    return {(b.from.x + b.to.x) / 2, (b.from.y + b.to.y) / 2};
}

FilmBox inFilm(const PictureBox& b) {
    return {{b.from.x, b.from.y}, {b.to.x, b.to.y}};
}

/// The id of the veil that lies on a point of a frame; empty = none.
std::string veilAt(const DeliveryMarks& marks, std::int64_t frame, ImagePoint at) {
    for (const auto& [id, veil] : marks.veils) {
        const PictureBox b = boxOn(veil, frame);
        if (b.from.x <= at.x && at.x <= b.to.x && b.from.y <= at.y && at.y <= b.to.y) return id;
    }
    return {};
}

/// The veil that a box is drawn for: the one that lies there, else one that asks to be drawn since.
std::string veilFor(const DeliveryMarks& marks, std::int64_t frame, const PictureBox& box) {
    if (std::string id = veilAt(marks, frame, middleOf(box)); !id.empty()) return id;
    for (const auto& [id, veil] : marks.veils) {
        const auto ask = std::find_if(veil.asks.rbegin(), veil.asks.rend(),
                                      [&](std::int64_t asked) { return asked <= frame; });
        if (ask == veil.asks.rend()) continue;
        const auto known = veil.boxes.upper_bound(*ask); // found again by itself, or drawn, in between?
        if (known == veil.boxes.end() || known->first > frame) return id;
    }
    return {};
}

} // namespace

Result<HidePlan> hidePlan(ReviewSession& session, std::int64_t frame, PictureBox box) {
    const DeliveryMarks& marks = session.delivery();
    const PictureBox upright{{std::min(box.from.x, box.to.x), std::min(box.from.y, box.to.y)},
                             {std::max(box.from.x, box.to.x), std::max(box.from.y, box.to.y)}};
    if (upright.to.x - upright.from.x < kLeastSidePx || upright.to.y - upright.from.y < kLeastSidePx)
        return fail(ErrorCode::Refused, msg("hide-person.too-small"));
    const FrameSpan span = marks.cut.value_or(FrameSpan{0, session.clip().frames - 1});
    if (!span.holds(frame)) return fail(ErrorCode::Refused, msg("hide-person.outside"));
    HidePlan plan{filesOf(session.library(), session.clip()), veilFor(marks, frame, upright), {}, span};
    if (const auto known = marks.veils.find(plan.id); known != marks.veils.end())
        for (const std::int64_t n : known->second.drawn) plan.drawn[n] = known->second.boxes.at(n);
    for (int n = 1; plan.id.empty(); ++n)
        if (const std::string id = "veil-" + std::to_string(n); !marks.veils.contains(id)) plan.id = id;
    plan.drawn[frame] = upright;
    return plan;
}

Result<Veil> followVeil(const HidePlan& plan, std::stop_token stop,
                        const std::function<void(double)>& progress) {
    auto clip = OpenClip::open(plan.files, stop);
    if (!clip) return clip.error();
    std::map<std::int64_t, FilmBox> drawn;
    for (const auto& [n, box] : plan.drawn) drawn[n] = inFilm(box);
    auto followed = followBox(clip->source(), drawn, plan.span.first, plan.span.last, stop, progress);
    if (!followed) return followed.error();
    Veil veil{plan.drawn, {}, followed->lost};
    for (const auto& [n, box] : plan.drawn) veil.drawn.push_back(n);
    const auto known = [&](std::int64_t n) { return followed->boxes.contains(n); };
    for (const auto& [n, b] : followed->boxes) {
        const bool end = !known(n - 1) || !known(n + 1);
        if (!plan.drawn.contains(n) && (end || n % kEvery == 0))
            veil.boxes[n] = {{b.from.x, b.from.y}, {b.to.x, b.to.y}};
    }
    return veil;
}

Message wordsOf(const Veil& veil) {
    const std::int64_t frames = veil.boxes.rbegin()->first - veil.boxes.begin()->first + 1;
    if (veil.asks.empty()) return msg("hide-person.followed", {{"frames", frames}});
    return msg("hide-person.lost", {{"frames", frames}, {"frame", veil.asks.front()}});
}

} // namespace jg
