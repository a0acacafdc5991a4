// SPDX-License-Identifier: GPL-3.0-or-later
// Taking films in: checked, copied by content, never changed.
#pragma once

#include "base/clock.h"
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

/// For when an answer may be promised.
struct PromiseChoice {
    int days = 0; ///< from today
    Message words;
};
std::vector<PromiseChoice> promiseChoices();

/// One film as described by the coach.
struct IntakeFilm {
    std::filesystem::path path;
    View view = View::Open;
    double statedFps = 0; ///< the coach's word on the capture rate; 0 = none
};

/// Everything asked when films come in.
struct IntakeForm {
    AthleteId athlete;
    std::optional<Athlete> newAthlete; ///< kept together with the films, or not at all
    std::vector<IntakeFilm> films;
    Start start = Start::Stretch;
    Surface surface = Surface::Mound;
    std::string asked;
    std::string pain;
    std::optional<Date> promised;
    std::string mail = {}; ///< MailIntake::key; empty = it came by hand
    bool onceMore = false; ///< a film that was taken in for them before is wanted again
};

/// What a film turned out to be.
struct LookedAt {
    FilmInfo info;
    FilmCheck check;
    Picture still;
};

/// What the check should know of a film: which way the athlete should move, seen from where.
CheckQuestion questionFor(View view, Hand hand, double statedFps = 0);

/// Opens and checks one film by the shipped limits; may run in any thread. Waits for a file that is still
/// being copied. Errors: those of Reader and checkFilm, with the film's name; Unreadable when the file never
/// stops growing.
Result<LookedAt> lookAtFilm(const std::filesystem::path& path, const CheckQuestion& question = {},
                            std::stop_token stop = {}, const std::function<void(double)>& progress = {});

/// The frame that a clip's still shows. Pure.
std::int64_t stillFrameOf(const Clip& clip);

/// Puts what a look at its film found into a clip; a capture rate the coach stated stays. `view` and id are
/// the clip's own.
void putFacts(Clip& clip, const LookedAt& looked);

/// Stores a submission whose films were looked at (same order), with its athlete when they are new. All or
/// nothing: what was copied for it goes again when it can't be kept. Any one thread. Errors: BadInput,
/// Cancelled, NeedsYes for a film of theirs that is here unless `onceMore`, those of Library.
Result<Submission> takeIn(Library& library, const IntakeForm& form, const std::vector<LookedAt>& looked,
                          const Clock& clock, IdSource& ids, std::stop_token stop = {},
                          const std::function<void(double)>& progress = {});

/// Looks at every film of a form, thrown by `hand`, then takes them in. Errors: those of both.
Result<Submission> lookAndTakeIn(Library& library, const IntakeForm& form, Hand hand, const Clock& clock,
                                 IdSource& ids, std::stop_token stop = {},
                                 const std::function<void(double)>& progress = {});

} // namespace jg
