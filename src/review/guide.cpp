#include "review/guide.h"

#include <algorithm>

namespace jg {

namespace {

void want(std::vector<GuideStep>& steps, const Review& review, Landmark landmark, Moment moment,
          const std::string& id) {
    const auto frame = review.frameOf(moment);
    if (!frame || review.point(*frame, landmark)) return;
    for (GuideStep& s : steps) {
        if (s.landmark != landmark || s.frame != *frame) continue;
        if (std::find(s.measures.begin(), s.measures.end(), id) == s.measures.end()) s.measures.push_back(id);
        return;
    }
    steps.push_back({landmark, moment, *frame, {id}, false});
}

/// The place of a step's first measure in the order of the body.
std::size_t partOf(const Playbook& playbook, const GuideStep& step) {
    const MeasureDefinition* m = playbook.measure(step.measures.front());
    const auto groups = measureGroups();
    return static_cast<std::size_t>(
        std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.id == m->group; }) -
        groups.begin());
}

/// The last position at or before a frame.
Moment momentBefore(const Review& review, std::int64_t frame) {
    Moment before = Moment::Set;
    for (const MomentInfo& m : keyPositions())
        if (const auto at = review.frameOf(m.moment); at && *at <= frame) before = m.moment;
    return before;
}

/// Where paths were lost, for measures that use the landmark.
void wantLost(std::vector<GuideStep>& steps, const Review& review, const Playbook& playbook) {
    for (const auto& [landmark, path] : review.paths)
        for (const std::int64_t frame : path.asks) {
            if (review.point(frame, landmark)) continue;
            for (const Target& target : review.walkTargets()) {
                const MeasureDefinition* m = playbook.measure(target.measure);
                const bool uses = m && std::any_of(m->slots.begin(), m->slots.end(),
                                                   [&](const Slot& s) { return s.landmark == landmark; });
                if (!uses) continue;
                steps.push_back({landmark, momentBefore(review, frame), frame, {m->id}, true});
                break;
            }
        }
}

} // namespace

std::vector<GuideStep> openSteps(const Review& review, const Playbook& playbook, const Clip& clip,
                                 WalkOrder order) {
    std::vector<GuideStep> steps;
    for (const Target& target : review.walkTargets()) {
        const MeasureDefinition* m = playbook.measure(target.measure);
        if (!m || !m->seenFrom(clip.view) || review.measureNotes.contains(m->id)) continue;
        if (m->needsHeight()) {
            want(steps, review, Landmark::Crown, Moment::Set, m->id);
            want(steps, review, Landmark::Ground, Moment::Set, m->id);
        }
        for (const Slot& slot : m->slots) want(steps, review, slot.landmark, slot.at, m->id);
    }
    // Stable: within a frame the order of the approach stays, which keeps the hand near.
    std::stable_sort(steps.begin(), steps.end(),
                     [](const auto& a, const auto& b) { return a.frame < b.frame; });
    if (order == WalkOrder::Body)
        std::stable_sort(steps.begin(), steps.end(), [&](const auto& a, const auto& b) {
            return partOf(playbook, a) < partOf(playbook, b);
        });
    wantLost(steps, review, playbook); // last: a path is an extra
    return steps;
}

} // namespace jg
