// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete's log as the page that is printed.
#pragma once

#include "desk/pages/log.h"
#include "letter/season_page.h"

namespace jg {

/// What of a log goes onto paper: findings that were worked on or off, all measures, letters with their
/// drills, outings. Pure.
SeasonPage seasonPageOf(const AthleteLog& log, const Playbook& playbook, Date today);

/// Reads an athlete's log and writes their season page, on the letter's paper. Needs loadFonts(). Errors:
/// those of readLog() and writeSeasonPage().
Status writeSeason(Library& library, const Playbook& playbook, const AthleteId& athlete, Date today,
                   const Words& words, const std::filesystem::path& path);

} // namespace jg
