// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/guide.h"

#include "review/record/deliveries.h"

#include <algorithm>

namespace jg {

namespace {

void want(std::vector<GuideStep>& steps, const DeliveryMarks& delivery, const Slot& slot, std::int64_t frames,
          const std::string& id) {
    const auto frame = delivery.frameOf(slot);
    const Landmark landmark = slot.landmark;
    if (!frame || *frame >= frames || delivery.point(*frame, landmark)) return;
    for (GuideStep& s : steps) {
        if (s.landmark != landmark || s.frame != *frame) continue;
        if (std::find(s.measures.begin(), s.measures.end(), id) == s.measures.end()) s.measures.push_back(id);
        return;
    }
    steps.push_back({landmark, slot.at, *frame, {id}, false});
}

/// The place of a step's first measure in the order of the body.
std::size_t partOf(const Playbook& playbook, const GuideStep& step) {
    return placeInBody(playbook.measure(step.measures.front())->group);
}

/// The last position at or before a frame.
Moment momentBefore(const DeliveryMarks& delivery, std::int64_t frame) {
    Moment before = Moment::Set;
    for (const MomentInfo& m : keyPositions())
        if (const auto at = delivery.frameOf(m.moment); at && *at <= frame) before = m.moment;
    return before;
}

/// Where paths were lost, for measures that use the landmark.
void wantLost(std::vector<GuideStep>& steps, const Review& review, const DeliveryMarks& delivery,
              const Playbook& playbook) {
    for (const auto& [landmark, path] : delivery.paths)
        for (const std::int64_t frame : path.asks) {
            if (delivery.point(frame, landmark)) continue;
            for (const Target& target : review.walkTargets()) {
                const MeasureDefinition* m = playbook.measure(target.measure);
                const bool uses = m && std::any_of(m->slots.begin(), m->slots.end(),
                                                   [&](const Slot& s) { return s.landmark == landmark; });
                if (!uses) continue;
                steps.push_back({landmark, momentBefore(delivery, frame), frame, {m->id}, true});
                break;
            }
        }
}

} // namespace

std::vector<GuideStep> openSteps(const Review& review, const DeliveryMarks& delivery,
                                 const Playbook& playbook, const Clip& clip, WalkOrder order) {
    std::vector<GuideStep> steps;
    for (const Target& target : review.walkTargets()) {
        const MeasureDefinition* m = playbook.measure(target.measure);
        if (!m || !m->seenFrom(clip.view) || delivery.measureNotes.contains(m->id)) continue;
        if (m->needsHeight()) {
            for (const Landmark end : {Landmark::Crown, Landmark::Ground})
                want(steps, delivery, {"", end, Moment::Set}, clip.frames, m->id);
        }
        for (const Slot& slot : m->slots) want(steps, delivery, slot, clip.frames, m->id);
    }
    // Stable: within a frame the order of the approach stays, which keeps the hand near.
    std::stable_sort(steps.begin(), steps.end(),
                     [](const auto& a, const auto& b) { return a.frame < b.frame; });
    if (order == WalkOrder::Body)
        std::stable_sort(steps.begin(), steps.end(), [&](const auto& a, const auto& b) {
            return partOf(playbook, a) < partOf(playbook, b);
        });
    wantLost(steps, review, delivery, playbook); // last: a path is an extra
    return steps;
}

std::optional<std::pair<int, std::size_t>>
openElsewhere(const Review& review, int but, const Playbook& playbook, const std::vector<Clip>& clips) {
    for (const DeliveryMarks& d : review.deliveries) {
        if (d.number == but || d.blank()) continue;
        if (const auto steps = openSteps(review, d, playbook, filmOf(d, clips)); !steps.empty())
            return std::pair(d.number, steps.size());
    }
    return std::nullopt;
}

} // namespace jg
