// Taking films in: checked, copied by content, never changed.
#pragma once

#include "base/date.h"
#include "base/ids.h"
#include "film/film_check.h"
#include "library/library.h"

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// One film as described by the coach.
struct IntakeFilm {
    std::filesystem::path path;
    View view = View::Open;
    double statedFps = 0; ///< the coach's word on the capture rate; 0 = none
};

/// Everything asked when films come in.
struct IntakeForm {
    AthleteId athlete;
    std::vector<IntakeFilm> films;
    std::string delivery = "stretch";
    std::string surface = "mound";
    std::string asked;
    std::string pain;
    std::optional<Date> promised;
};

/// What a film turned out to be.
struct LookedAt {
    FilmInfo info;
    FilmCheck check;
    Picture still;
};

/// Opens and checks one film; may run in any thread. Errors: those of Reader and checkFilm, with the film's
/// name.
Result<LookedAt> lookAtFilm(const std::filesystem::path& path, std::stop_token stop = {},
                            const std::function<void(double)>& progress = {});

/// Stores a submission whose films were looked at (same order). All or nothing: a refused film stores
/// nothing. Errors: BadInput, those of Library.
Result<Submission> takeIn(Library& library, const IntakeForm& form, const std::vector<LookedAt>& looked,
                          const Clock& clock, IdSource& ids);

/// The small still of a clip, made at intake; may be missing.
std::filesystem::path stillPath(const Library& library, const Clip& clip);

} // namespace jg
