#include "desk/begin_judging.h"

#include <algorithm>

namespace jg {

const Approach* approachFor(const Playbook& playbook, const Athlete& athlete) {
    if (const Approach* own = playbook.approach(athlete.approach)) return own;
    if (const Approach* usual = playbook.approach(kUsualApproach)) return usual;
    return playbook.approaches.empty() ? nullptr : &playbook.approaches.front();
}

Approach withTargetsOf(Approach approach, const Athlete& athlete) {
    for (const Target& own : athlete.targets) {
        const auto at = std::find_if(approach.targets.begin(), approach.targets.end(),
                                     [&](const Target& t) { return t.measure == own.measure; });
        if (at != approach.targets.end()) *at = own;
    }
    return approach;
}

Result<Judging> beginJudging(Store& store, const Playbook& playbook, const Approach& approach,
                             const Athlete& athlete, Date today) {
    Judging judging{withTargetsOf(approach, athlete), {}, athlete.ageOn(today), {}};
    if (!playbook.text) return judging;
    auto kept = store.keepPlaybook(*playbook.text);
    if (!kept) return kept.error();
    judging.playbook = *kept;
    return judging;
}

} // namespace jg
