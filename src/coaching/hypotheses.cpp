// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/hypotheses.h"

#include <algorithm>

namespace jg {

namespace {

const std::vector<View>* viewsOf(const Playbook& playbook, const std::string& id) {
    if (const auto* m = playbook.measure(id)) return &m->views;
    if (const auto* i = playbook.item(id)) return &i->views;
    return nullptr;
}

Message positionOf(const Playbook& playbook, const std::string& id) {
    if (const auto* m = playbook.measure(id))
        return m->moments.empty() ? Message{} : info(m->shownAt()).name();
    if (const auto* i = playbook.item(id)) return info(i->position).name();
    return {};
}

Message standingOf(Looked state) {
    switch (state) {
    case Looked::Fault:
        return msg("hypotheses.found");
    case Looked::Good:
        return msg("hypotheses.good");
    case Looked::CannotTell:
        return msg("hypotheses.cannot-tell");
    case Looked::NotVisible:
        return msg("hypotheses.not-visible");
    case Looked::NotLookedAt:
        break;
    }
    return msg("hypotheses.not-looked-at");
}

Message whatTells(const Playbook& playbook, const std::string& id, Looked state) {
    const auto* views = viewsOf(playbook, id);
    switch (state) {
    case Looked::Fault:
    case Looked::Good:
        return {};
    case Looked::CannotTell:
        return msg("hypotheses.another-delivery");
    case Looked::NotVisible:
        return views && !views->empty() ? msg("hypotheses.film-from", {{"views", viewsInWords(*views)}})
                                        : msg("hypotheses.another-delivery");
    case Looked::NotLookedAt:
        break;
    }
    return msg("hypotheses.look-at", {{"position", positionOf(playbook, id)}});
}

int rankOf(Looked state) {
    return state == Looked::Fault ? 0 : state == Looked::Good ? 2 : 1;
}

} // namespace

std::vector<CompetingCauses> possibleCauses(const Playbook& playbook,
                                            const std::vector<std::string>& findings, const Known& known,
                                            const std::vector<CauseChoice>& choices) {
    std::vector<CompetingCauses> all;
    const auto causes = causesFor(playbook, choices);
    for (const std::string& sign : findings) {
        CompetingCauses c{sign, {}, screensFor(playbook, sign)};
        for (const Cause& cause : causes) {
            if (!meets(known.found(sign), cause.consequence())) continue;
            const bool listed = std::any_of(c.causes.begin(), c.causes.end(),
                                            [&](const Hypothesis& h) { return h.cause == cause.from; });
            if (listed) continue;
            const bool found = std::find(findings.begin(), findings.end(), cause.from) != findings.end();
            // Off the other way it is ruled out as one that is good.
            const bool fits = meets(known.found(cause.from), cause.cause());
            const Looked state = found && fits    ? Looked::Fault
                                 : found || !fits ? Looked::Good
                                                  : lookedAt(known, cause.from);
            c.causes.push_back({cause.from, state, cause.why, cause.says, standingOf(state),
                                whatTells(playbook, cause.from, state)});
        }
        std::stable_sort(c.causes.begin(), c.causes.end(), [](const Hypothesis& a, const Hypothesis& b) {
            return rankOf(a.state) < rankOf(b.state);
        });
        all.push_back(std::move(c));
    }
    return all;
}

std::vector<CompetingCauses> competingCauses(const Playbook& playbook,
                                             const std::vector<std::string>& findings, const Known& known,
                                             const std::vector<CauseChoice>& choices) {
    auto all = possibleCauses(playbook, findings, known, choices);
    std::erase_if(all, [](const CompetingCauses& c) {
        const auto open = [](const Hypothesis& h) { return h.state != Looked::Good; };
        return std::count_if(c.causes.begin(), c.causes.end(), open) < 2;
    });
    return all;
}

} // namespace jg
