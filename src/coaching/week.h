// The week of drills.
#pragma once

#include "coaching/playbook.h"

#include <string>
#include <vector>

namespace jg {

/// One drill of the plan: which correction it serves and the dose the coach set.
struct PlannedDrill {
    std::string drill;
    std::string finding;
    Dose dose;
    bool doseWaived = false;
    bool operator==(const PlannedDrill&) const = default;
};

/// A day: 0 = Monday ... 6 = Sunday, with the drills on it.
struct PlanDay {
    int weekday = 0;
    std::string body; ///< lower | upper
    std::vector<std::string> drills;
};

struct WeekPlan {
    std::vector<PlanDay> days; ///< in order of weekday
    std::vector<std::string> missingDose;
    std::vector<Message> blocked; ///< a sentence each; a plan with any may not be sent
};

Message weekdayShort(int weekday); ///< "Mon"; 0 is Monday

/// Lays drills out: lower body Monday and Thursday (then Saturday), upper body Tuesday and Friday (then
/// Sunday), so that the two never share a day. With pain a drill whose motion is a throw is blocked, and so
/// is one below the drill's age. Pure. Source: order of the week is common practice, no source.
WeekPlan layOutWeek(const Playbook& playbook, const std::vector<PlannedDrill>& drills, int age, bool pain);

/// Drills that serve a finding and are allowed for the age (and, with pain, throw nothing), those made for it
/// first; never more than `most`. Pure.
std::vector<const Drill*> drillsFor(const Playbook& playbook, std::string_view finding, int age, bool pain,
                                    std::size_t most);

} // namespace jg
