// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/suggest.h"

#include <algorithm>
#include <array>
#include <map>

namespace jg {

DrillGates PlanFor::gates() const {
    return gatesFor(review.plan, told, athlete, submission, today, painElsewhere);
}

namespace {

constexpr std::array kViews = {View::Open, View::Closed, View::Front, View::Rear};

void addDrills(Plan& plan, const PlanFor& f) {
    DrillGates gates = f.gates();
    gates.chosen.clear(); // of this plan, which the review may not have yet
    for (const std::string& finding : plan.corrections) gates.chosen.push_back(f.told.sided(finding));
    std::vector<PlannedDrill> drills;
    for (const std::string& finding : plan.corrections) {
        // What the coach already set for this correction stays.
        for (const PlannedDrill& d : plan.drills)
            if (d.finding == finding) drills.push_back(d);
        const bool has =
            std::any_of(drills.begin(), drills.end(), [&](const auto& d) { return d.finding == finding; });
        if (has) continue;
        const WhyNot* whyNot = plan.whyNotOf(finding);
        const auto need = whyNot ? needOf(f.playbook, *whyNot) : std::nullopt;
        for (const Drill* d :
             drillsFor(f.playbook, textOf(f.told.sided(finding)), gates, drills.empty() ? 2 : 1, need)) {
            const bool twice =
                std::any_of(drills.begin(), drills.end(), [&](const auto& x) { return x.drill == d->id; });
            if (!twice) drills.push_back({d->id, finding, d->dose, false});
        }
    }
    plan.drills = std::move(drills);
}

int lookAgainDays(const Plan& plan, const Playbook& playbook) {
    int days = 0;
    for (const PlannedDrill& d : plan.drills)
        if (const Drill* drill = playbook.drill(d.drill)) days = std::max(days, drill->lookAgainDays);
    return days;
}

Message openingFor(const PlanFor& f) {
    return f.submission.asked.empty() ? msg("suggest.thanks")
                                      : msg("suggest.you-asked", {{"asked", f.submission.asked}});
}

} // namespace

Message filmNext(const PlanFor& f) {
    std::map<View, int> wanted;
    for (const MeasureRow& row : f.told.measures) {
        const MeasureDefinition* m = f.playbook.measure(row.id);
        if (!m || row.value.state != MeasureState::NotVisible) continue;
        for (const View v : m->views)
            if (v != f.clip.view) ++wanted[v];
    }
    for (const ItemRow& row : f.told.items) {
        const GradedItem* item = f.playbook.item(row.id);
        if (!item || row.seenFromHere) continue;
        for (const View v : item->views) ++wanted[v];
    }
    const auto from = [&](View view) {
        return placeOf(view, f.athlete.hand).id.substr(std::string("place.").size());
    };
    const Message same = msg("film-next." + from(f.clip.view));
    View best = f.clip.view;
    for (const View v : kViews)
        if (wanted[v] > wanted[best]) best = v;
    if (wanted[best] == 0) return same;
    return joined(ListStyle::Sentences, {same, msg("film-too." + from(best), {{"count", wanted[best]}})});
}

Plan proposePlan(const PlanFor& f, const std::vector<std::string>& corrections, const Words& words) {
    Plan plan = f.review.plan;
    plan.corrections = corrections;
    addDrills(plan, f);
    // A strength that is to be worked on is none.
    std::erase_if(plan.keeps, [&](const std::string& id) {
        return std::find(corrections.begin(), corrections.end(), id) != corrections.end();
    });
    if (const int days = lookAgainDays(plan, f.playbook); !plan.nextLook && days > 0)
        plan.nextLook = addDays(f.today, days);
    if (plan.opening.empty()) plan.opening = words(openingFor(f));
    if (plan.ask.empty()) plan.ask = words(filmNext(f));
    return plan;
}

Plan inLanguage(const PlanFor& f, const Words& from, const Words& to) {
    Plan plan = f.review.plan;
    if (plan.opening == from(openingFor(f))) plan.opening = to(openingFor(f));
    if (plan.ask == from(filmNext(f))) plan.ask = to(filmNext(f));
    return plan;
}

Plan inReadersLanguage(const PlanFor& f) {
    const Words& to = wordsOf(idOf(f.athlete.language));
    Plan plan = f.review.plan;
    for (const Language language : allLanguages()) {
        if (language == f.athlete.language) continue;
        const Plan said = inLanguage(f, wordsOf(idOf(language)), to);
        if (said.opening != f.review.plan.opening) plan.opening = said.opening;
        if (said.ask != f.review.plan.ask) plan.ask = said.ask;
    }
    return plan;
}

} // namespace jg
