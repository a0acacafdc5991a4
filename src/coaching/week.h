// SPDX-License-Identifier: GPL-3.0-or-later
// The week of drills.
#pragma once

#include "coaching/drill_gates.h"
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
    int throws = 0; ///< with a ball
};

struct WeekPlan {
    std::vector<PlanDay> days; ///< in order of weekday; the others are for rest
    std::vector<std::string> missingDose;
    std::vector<Message> blocked; ///< a sentence each; a plan with any may not be sent
    std::vector<Message> notes;   ///< what had to give way, and what guidance says

    const PlanDay* day(int weekday) const;
};

Message weekdayShort(int weekday); ///< "Mon"; 0 is Monday

/// Throws with a ball of a drill on one of its days.
int throwsADay(const PlannedDrill& planned, const Drill& drill);

/// Days of the week that stay free of drills at an age. Source: own choice.
int restDaysAt(int age);

/// Lays drills out: lower and upper body never share a day, the days of each lie as far apart as the free
/// days let them, restDaysAt() days stay free, nothing lies on a game day and no throw on the day before one.
/// Throwing days keep the rest that guidance asks for after so many throws; what does not fit is done on
/// fewer days, with a note. A drill that may not be given is blocked. Pure. Source: order of the week is
/// common practice, no source; rest after throwing as throwingGuidance().
WeekPlan layOutWeek(const Playbook& playbook, const std::vector<PlannedDrill>& drills,
                    const DrillGates& gates);

} // namespace jg
