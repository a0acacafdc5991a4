#include "desk/suggest.h"

#include <algorithm>

namespace jg {

CauseReport rankedFaults(const Playbook& playbook, const Assessment& a) {
    return explain(playbook, a.faults());
}

Plan proposePlan(const Playbook& playbook, const Review& review, const Athlete& athlete,
                 const Submission& submission, const Clip& clip, const std::vector<std::string>& corrections,
                 Date today, bool painElsewhere, const Words& words) {
    Plan plan = review.plan;
    plan.corrections = corrections;
    const int age = athlete.ageOn(today);
    const bool pain = submission.painOpen() || painElsewhere;
    std::vector<PlannedDrill> drills;
    int lookAgain = 0;
    for (const std::string& finding : corrections) {
        // What the coach already set for this correction stays.
        for (const PlannedDrill& d : plan.drills)
            if (d.finding == finding) drills.push_back(d);
        const bool has =
            std::any_of(drills.begin(), drills.end(), [&](const auto& d) { return d.finding == finding; });
        if (!has)
            for (const Drill* d : drillsFor(playbook, finding, age, pain, drills.empty() ? 2 : 1)) {
                const bool twice = std::any_of(drills.begin(), drills.end(),
                                               [&](const auto& x) { return x.drill == d->id; });
                if (!twice) drills.push_back({d->id, finding, d->dose, false});
            }
    }
    for (const PlannedDrill& d : drills)
        if (const Drill* drill = playbook.drill(d.drill))
            lookAgain = std::max(lookAgain, drill->lookAgainDays);
    plan.drills = std::move(drills);
    if (!plan.nextLook && lookAgain > 0) plan.nextLook = addDays(today, lookAgain);
    if (plan.opening.empty())
        plan.opening =
            words(submission.asked.empty() ? msg("suggest.thanks")
                                           : msg("suggest.you-asked", {{"asked", submission.asked}}));
    if (plan.ask.empty())
        plan.ask = words(msg("suggest.film-next", {{"place", placeOf(clip.view, athlete.hand)}}));
    return plan;
}

} // namespace jg
