// SPDX-License-Identifier: GPL-3.0-or-later
// Reviews of generated films as a coach would have made them.
#pragma once

#include "base/ids.h"
#include "demo/films/film_maker.h"
#include "library/library.h"
#include "review/record/own_error.h"
#include "review/record/review.h"

#include <cstdint>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// How far the pretended coach has come.
struct DemoReviewWish {
    Stage until = Stage::Judge;
    double clickSigmaPx = 1.6;
    std::size_t measuresOpen = 0; ///< landmarks left unclicked at the end
    std::uint64_t seed = 1;
    std::vector<std::string> extras = {}; ///< measures taken beside the approach's
    int firstOfOuting = 1;                ///< number of the first pitch in its outing
    bool followed = false;                ///< joints are followed between their clicks
};

/// A made-up exercise of the coach's own click error: what `DemoReviewWish::clickSigmaPx` clicks like. Pure.
ErrorRun demoErrorRun(const std::string& coach, Date day);

/// A review of a submission's generated films, one order a clip, each a delivery of its own: positions and
/// clicks from the truth with a hand's wobble and the error of the coach's own exercise, the
/// camera as it stood, grades from what the figure does, stops spoken with the shipped voice; joints followed
/// through the film where that is wished. Takes are written to the library's takes folder.
/// Errors: those of reading the voice, of writing takes, and of reading the film.
Result<Review> makeDemoReview(Library& library, const Playbook& playbook, const Athlete& athlete,
                              const Submission& submission, const std::vector<FilmOrder>& orders,
                              const DemoReviewWish& wish, Date date, IdSource& ids,
                              std::stop_token stop = {});

} // namespace jg
