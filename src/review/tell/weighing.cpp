// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/weighing.h"

#include "review/tell/plan_rules.h"

#include <algorithm>

namespace jg {

namespace {

std::vector<std::string> faultsIn(const Assessment& a) {
    std::vector<std::string> ids;
    for (const Judged& j : a.findings)
        if (!j.strength && !j.cannotTell) ids.push_back(j.finding.id);
    return ids;
}

/// What is seen of a cause when it is there; a measure has its name.
std::string nameOfCause(const Playbook& playbook, const Assessment& a, const std::string& row) {
    const GradedItem* item = playbook.item(row);
    if (!item) return playbook.nameOfFinding(row);
    const GradedItem::Side* side = item->side(a.sided(row).side);
    return side ? side->fault : item->fault;
}

Message namesOf(const Playbook& playbook, const Assessment& a, const std::vector<Hypothesis>& causes) {
    std::vector<Message> names;
    for (const Hypothesis& h : causes) names.push_back(asIs(nameOfCause(playbook, a, h.cause)));
    return joined(ListStyle::Commas, std::move(names));
}

} // namespace

bool isHeldBy(const Approach& approach, std::string_view says) {
    return says.empty() || says == kSeveralSchools || says == approach.name ||
           (!approach.basedOn.empty() && approach.basedOn.starts_with(says));
}

std::vector<Weighed> weighedIn(const Review& review, const Playbook& playbook, const Assessment& a) {
    std::vector<Weighed> all;
    const auto faults = faultsIn(a);
    for (const CompetingCauses& c : possibleCauses(playbook, faults, knownOf(a), review.plan.causes)) {
        const auto& chosen = review.plan.corrections;
        if (std::find(chosen.begin(), chosen.end(), c.sign) == chosen.end() || c.causes.empty()) continue;
        Weighed w{c.sign, {}, {}, {}};
        for (const Hypothesis& h : c.causes)
            (h.state == Looked::Fault  ? w.likely
             : h.state == Looked::Good ? w.ruledOut
                                       : w.open)
                .push_back(h);
        all.push_back(std::move(w));
    }
    return all;
}

Weighed heldBy(const Approach& approach, Weighed w) {
    for (auto* list : {&w.likely, &w.ruledOut, &w.open})
        std::erase_if(*list, [&](const Hypothesis& h) { return !isHeldBy(approach, h.says); });
    return w;
}

Message weighingInWords(const Playbook& playbook, const Assessment& a, const Weighed& w) {
    const auto told = [&](const char* id, const std::vector<Hypothesis>& causes) {
        return causes.empty() ? Message{} : msg(id, {{"causes", namesOf(playbook, a, causes)}});
    };
    std::vector<Message> said = {told("weighing.likely", w.likely), told("weighing.ruled-out", w.ruledOut),
                                 told("weighing.open", w.open)};
    if (!w.open.empty()) said.push_back(w.open.front().tells);
    return joined(ListStyle::Sentences, std::move(said));
}

} // namespace jg
