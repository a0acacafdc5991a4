// Pictures shown more than once, or mixed from their neighbours. Inside the film room only.
#pragma once

#include "film/survey.h"

namespace jg {

/// How often each picture is held, when all changes fall on every k-th picture; 1 when there is no such beat.
/// Claims nothing when little moves.
int heldTimes(const FilmSurvey& survey);

/// True when every second picture is a mix of both its neighbours, as editors make them to raise a rate.
bool isBlended(const FilmSurvey& survey);

} // namespace jg
