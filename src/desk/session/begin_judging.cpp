// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/begin_judging.h"

#include "coaching/approach_rows.h"
#include "kinematics/answers.h"

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

namespace {

/// What an approach, or a focus of it, asks of an athlete by itself.
Approach standardOf(const Playbook& playbook, const Approach& now, const Athlete& athlete) {
    const Approach* whole = playbook.approach(now.id);
    if (!whole) return now; // it left the playbook: nothing can be told apart
    for (const FocusCard& focus : playbook.focuses)
        if (Approach part = focused(*whole, focus); part.name == now.name)
            return withTargetsOf(std::move(part), athlete);
    return withTargetsOf(*whole, athlete);
}

} // namespace

std::vector<Target> setForReview(const Playbook& playbook, const Judging& judging, const Athlete& athlete) {
    const Approach standard = standardOf(playbook, judging.approach, athlete);
    std::vector<Target> own;
    for (const Target& t : judging.approach.targets)
        if (const Target* usual = standard.targetOf(t.measure); !usual || !(*usual == t)) own.push_back(t);
    own.insert(own.end(), judging.setAside.begin(), judging.setAside.end());
    return own;
}

void takeOver(Judging& judging, const std::vector<Target>& own, const FocusCard* focus) {
    for (const Target& t : own)
        if (focus && !isAmong(focus->rows, t.measure))
            judging.setAside.push_back(t);
        else
            exchangeTarget(judging.approach, t.measure, t);
}

} // namespace jg
