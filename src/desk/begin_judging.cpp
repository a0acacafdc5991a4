#include "desk/begin_judging.h"

#include "coaching/approach_rows.h"

namespace jg {

const Approach* approachFor(const Playbook& playbook, const Athlete& athlete) {
    if (const Approach* own = playbook.approach(athlete.approach)) return own;
    if (const Approach* usual = playbook.approach(kUsualApproach)) return usual;
    return playbook.approaches.empty() ? nullptr : &playbook.approaches.front();
}

Approach withTargetsOf(Approach approach, const Athlete& athlete) {
    for (const Target& own : athlete.targets)
        if (approach.targetOf(own.measure)) exchangeTarget(approach, own.measure, own);
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
