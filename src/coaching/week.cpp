// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/week.h"

#include "coaching/throwing_guidance.h"

#include <algorithm>
#include <bit>
#include <tuple>

namespace jg {

Message weekdayShort(int weekday) {
    // A week of dates that begins on a Monday.
    return day(addDays(Date{std::chrono::year{2026} / 11 / 23}, weekday), DateStyle::WeekdayShort);
}

const PlanDay* WeekPlan::day(int weekday) const {
    const auto it =
        std::find_if(days.begin(), days.end(), [&](const PlanDay& d) { return d.weekday == weekday; });
    return it == days.end() ? nullptr : &*it;
}

int throwsADay(const PlannedDrill& planned, const Drill& drill) {
    return drill.ball ? planned.dose.sets * planned.dose.reps : 0;
}

int restDaysAt(int age) {
    return age < 12 ? 2 : 1;
}

namespace {

using Days = std::vector<int>; // rising weekdays

/// The smallest number of days from one to the next, round the week; 7 for one alone.
int smallestGap(const Days& days) {
    int gap = 7;
    for (std::size_t i = 0; i < days.size(); ++i) {
        const int next = i + 1 < days.size() ? days[i + 1] : days.front() + 7;
        gap = std::min(gap, next - days[i]);
    }
    return gap;
}

Days daysOf(unsigned mask) {
    Days days;
    for (int d = 0; d < 7; ++d)
        if (mask >> d & 1U) days.push_back(d);
    return days;
}

/// Of the free days `wanted` for the one body and the other: as many as there are, both bodies before more of
/// one, far apart, early in the week.
std::pair<Days, Days> divide(unsigned free, int lower, int upper, int rest) {
    std::pair<Days, Days> best;
    const auto score = [&](const Days& l, const Days& u) {
        const int missing = (lower > 0 && l.empty()) + (upper > 0 && u.empty());
        const int given = static_cast<int>(l.size() + u.size());
        return std::tuple(missing, -given, -std::min(smallestGap(l), smallestGap(u)),
                          -(smallestGap(l) + smallestGap(u)), l, u);
    };
    for (unsigned l = 0; l < 128; ++l) {
        if ((l & ~free) || std::popcount(l) > lower) continue;
        for (unsigned u = 0; u < 128; ++u) {
            if ((u & ~free) || (u & l) || std::popcount(u) > upper) continue;
            if (std::popcount(l | u) > 7 - rest) continue;
            const std::pair now{daysOf(l), daysOf(u)};
            if (score(now.first, now.second) < score(best.first, best.second)) best = now;
        }
    }
    return best;
}

/// The most of `days`, at most `wanted`, that keep `rest` days between them; early ones first.
Days spaced(const Days& days, int wanted, int rest) {
    Days best;
    for (unsigned mask = 1; mask < (1U << days.size()); ++mask) {
        Days some;
        for (std::size_t i = 0; i < days.size(); ++i)
            if (mask >> i & 1U) some.push_back(days[i]);
        if (static_cast<int>(some.size()) > wanted || smallestGap(some) <= rest) continue;
        if (some.size() > best.size() || (some.size() == best.size() && some < best)) best = some;
    }
    return best;
}

struct Placed {
    const PlannedDrill* planned;
    const Drill* drill;
};

int wantedDays(const PlannedDrill& planned, Season season) {
    const int most = season == Season::During ? 2 : 3; // own choice: half the week belongs to the games
    return std::clamp(planned.doseWaived && planned.dose.missing() ? 1 : planned.dose.days, 1, most);
}

void putOn(WeekPlan& plan, int weekday, const Placed& p) {
    auto it = std::find_if(plan.days.begin(), plan.days.end(),
                           [&](const PlanDay& d) { return d.weekday == weekday; });
    if (it == plan.days.end()) {
        plan.days.push_back({weekday, p.drill->body, {}, 0});
        it = std::prev(plan.days.end());
    }
    if (std::find(it->drills.begin(), it->drills.end(), p.drill->id) != it->drills.end()) return;
    it->drills.push_back(p.drill->id);
    it->throws += throwsADay(*p.planned, *p.drill);
}

/// The days on which balls are thrown, of those of the upper body.
Days throwingDays(const Days& upper, const std::vector<Placed>& drills, const DrillGates& gates, int throws) {
    int wanted = 0;
    for (const Placed& p : drills)
        if (p.drill->ball) wanted = std::max(wanted, wantedDays(*p.planned, gates.at.season));
    Days allowed;
    for (const int d : upper)
        if (!(gates.at.gameDays >> ((d + 1) % 7) & 1U)) allowed.push_back(d);
    const auto guidance = throwingGuidance(gates.age);
    return spaced(allowed, wanted, guidance ? guidance->restAfter(throws) : 1);
}

void addGuidance(WeekPlan& plan, const DrillGates& gates, int throws) {
    if (throws == 0) return;
    const auto guidance = throwingGuidance(gates.age);
    if (guidance && throws > guidance->mostADay)
        plan.notes.push_back(msg("week.over-guidance",
                                 {{"throws", throws}, {"most", guidance->mostADay}, {"age", gates.age}}));
    plan.notes.push_back(guidanceInWords(gates.age));
}

} // namespace

WeekPlan layOutWeek(const Playbook& playbook, const std::vector<PlannedDrill>& drills,
                    const DrillGates& gates) {
    WeekPlan plan;
    std::vector<Placed> placed;
    int lower = 0, upper = 0, throws = 0;
    for (const PlannedDrill& planned : drills) {
        const Drill* drill = playbook.drill(planned.drill);
        if (!drill) {
            plan.blocked.push_back(msg("week.unknown-drill", {{"drill", planned.drill}}));
            continue;
        }
        if (Message why = blockedBy(*drill, gates); !why.empty()) {
            plan.blocked.push_back(std::move(why));
            continue;
        }
        if (planned.dose.missing() && !planned.doseWaived) plan.missingDose.push_back(drill->id);
        int& most = drill->body == "lower" ? lower : upper;
        most = std::max(most, wantedDays(planned, gates.at.season));
        throws += throwsADay(planned, *drill);
        placed.push_back({&planned, drill});
    }
    const unsigned free = gates.at.days & ~gates.at.gameDays & 0x7FU;
    const auto [lowerDays, upperDays] = divide(free, lower, upper, restDaysAt(gates.age));
    const Days ballDays = throwingDays(upperDays, placed, gates, throws);
    for (const Placed& p : placed) {
        const Days& days = p.drill->ball ? ballDays : p.drill->body == "lower" ? lowerDays : upperDays;
        const auto wanted = static_cast<std::size_t>(wantedDays(*p.planned, gates.at.season));
        const std::size_t given = std::min(wanted, days.size());
        for (std::size_t i = 0; i < given; ++i) putOn(plan, days[i], p);
        const auto asked = static_cast<std::size_t>(std::max(1, p.planned->dose.days));
        if (given == 0)
            plan.blocked.push_back(msg("week.no-day", {{"drill", p.drill->name}}));
        else if (given < asked)
            plan.notes.push_back(
                msg("week.fewer-days", {{"drill", p.drill->name}, {"given", given}, {"asked", asked}}));
    }
    std::sort(plan.days.begin(), plan.days.end(),
              [](const auto& a, const auto& b) { return a.weekday < b.weekday; });
    addGuidance(plan, gates, throws);
    return plan;
}

} // namespace jg
