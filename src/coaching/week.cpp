#include "coaching/week.h"

#include <algorithm>
#include <array>

namespace jg {

Message weekdayShort(int weekday) {
    // A week of dates that begins on a Monday.
    return day(addDays(Date{std::chrono::year{2026} / 11 / 23}, weekday), DateStyle::WeekdayShort);
}

namespace {

// At most three days each: the two halves of the body never meet on one day.
constexpr std::array kLowerDays = {0, 3, 5};
constexpr std::array kUpperDays = {1, 4, 6};

void putOnDay(WeekPlan& plan, int weekday, const Drill& drill) {
    auto it = std::find_if(plan.days.begin(), plan.days.end(),
                           [&](const PlanDay& d) { return d.weekday == weekday; });
    if (it == plan.days.end()) {
        plan.days.push_back({weekday, drill.body, {}});
        it = std::prev(plan.days.end());
    }
    if (std::find(it->drills.begin(), it->drills.end(), drill.id) == it->drills.end())
        it->drills.push_back(drill.id);
}

} // namespace

WeekPlan layOutWeek(const Playbook& playbook, const std::vector<PlannedDrill>& drills, int age, bool pain) {
    WeekPlan plan;
    for (const PlannedDrill& planned : drills) {
        const Drill* drill = playbook.drill(planned.drill);
        if (!drill) {
            plan.blocked.push_back(msg("week.unknown-drill", {{"drill", planned.drill}}));
            continue;
        }
        if (pain && drill->throwing) {
            plan.blocked.push_back(msg("week.throws-in-pain", {{"drill", drill->name}}));
            continue;
        }
        if (age < drill->ageFrom) {
            plan.blocked.push_back(msg("week.too-young", {{"drill", drill->name}, {"age", drill->ageFrom}}));
            continue;
        }
        if (planned.dose.missing() && !planned.doseWaived) plan.missingDose.push_back(drill->id);
        const auto& days = drill->body == "lower" ? kLowerDays : kUpperDays;
        const auto count =
            std::clamp<std::size_t>(static_cast<std::size_t>(std::max(1, planned.dose.days)), 1, days.size());
        for (std::size_t i = 0; i < count; ++i) putOnDay(plan, days.at(i), *drill);
    }
    std::sort(plan.days.begin(), plan.days.end(),
              [](const auto& a, const auto& b) { return a.weekday < b.weekday; });
    return plan;
}

std::vector<const Drill*> drillsFor(const Playbook& playbook, std::string_view finding, int age, bool pain,
                                    std::size_t most) {
    const auto place = [&](const Drill& d) {
        return std::find(d.serves.begin(), d.serves.end(), finding) - d.serves.begin();
    };
    std::vector<const Drill*> found;
    for (const Drill& d : playbook.drills) {
        const bool serves = place(d) < static_cast<std::ptrdiff_t>(d.serves.size());
        if (serves && age >= d.ageFrom && !(pain && d.throwing)) found.push_back(&d);
    }
    // What a drill is made for stands first in its list.
    std::stable_sort(found.begin(), found.end(),
                     [&](const Drill* a, const Drill* b) { return place(*a) < place(*b); });
    if (found.size() > most) found.resize(most);
    return found;
}

} // namespace jg
