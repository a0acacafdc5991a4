// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete's log: finding by finding over the dates, what was kept against the baseline, what comes next.
#pragma once

#include "coaching/season.h"
#include "desk/pages/athlete_page.h"
#include "desk/pages/outing.h"
#include "review/tell/follow_up.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// Findings that were found, worked on or kept in some review: those worked on first, then those that came
/// back, each in the order of the newest review. Pure.
std::vector<LogLine> logLines(const AthletePage& page, const Playbook& playbook);

/// The newest review against the coach's baseline, else against the last one sent before it.
struct SinceThen {
    std::string name; ///< of the baseline; empty = the last letter
    Date when{};
    ReviewId review;
    std::vector<FindingSince> followed;
};

/// What to know before the lesson.
struct BeforeLesson {
    std::vector<std::string> lastTime;        ///< findings of the last letter's corrections, at most three
    std::map<std::string, std::string> goals; ///< what each of them was called there: as something to do
    std::vector<std::string> kept;            ///< what it said to keep
    std::string toFilm;                       ///< what it asked to film
    std::vector<Promise> owed;                ///< open, the earliest first
    std::optional<Date> letter;               ///< of that letter; nothing = none was sent
};

struct AthleteLog {
    AthletePage page;
    std::vector<LogLine> lines;
    std::optional<SinceThen> since; ///< nothing while there is nothing to compare with
    BeforeLesson before;
    std::map<std::string, RobustLine> trends; ///< by measure, where four dates and more are alike
    std::map<std::string, Date> sureSince;    ///< by measure: the first day a change is sure
    std::vector<std::pair<ReviewId, std::vector<std::string>>> drills; ///< given, by review
    std::vector<Outing> outings; ///< the newest, its measures that are off most often
};

/// Errors: those of reading the store.
Result<AthleteLog> readLog(Store& store, const Playbook& playbook, const AthleteId& athlete);

} // namespace jg
