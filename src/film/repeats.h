// SPDX-License-Identifier: GPL-3.0-or-later
// Pictures shown more than once, mixed from their neighbours, or missing. Inside the film room only.
#pragma once

#include "film/survey.h"

namespace jg {

/// How often each picture is held, when all changes fall on every k-th picture; 1 when there is no such beat.
/// Claims nothing when little moves.
int heldTimes(const FilmSurvey& survey);

/// True when every second picture is a mix of both its neighbours, as editors make them to raise a rate.
bool isBlended(const FilmSurvey& survey);

/// Frames before which a film of otherwise even steps has a gap in time.
std::vector<std::int64_t> gapsInTime(const FilmInfo& info);

/// Frames at which everything that moves jumps twice its way, once, though time goes on evenly. Claims
/// nothing where the motion is small or uneven by itself.
std::vector<std::int64_t> jumpsInMotion(const FilmSurvey& survey);

} // namespace jg
