// SPDX-License-Identifier: GPL-3.0-or-later
// The pictures of the own-error exercise, and its record in the library.
#pragma once

#include "film/picture.h"
#include "library/library.h"
#include "review/record/own_error.h"

#include <stop_token>

namespace jg {

/// A picture to click three joints on.
struct ExercisePicture {
    ErrorPicture what;
    Picture picture;
};

/// One showing: which picture, which round.
struct Showing {
    std::size_t picture = 0;
    std::size_t round = 0;
};

struct Exercise {
    std::vector<ExercisePicture> pictures;
    std::vector<Showing> order; ///< every picture twice, never twice in a row
};

/// Frames of the coach's own clips that can be shown again: a film and the joints clicked on it.
struct OwnFrame {
    std::filesystem::path film;
    std::string name;
    std::int64_t frame = 0;
    std::array<Landmark, 3> joints{};
};

/// Up to `most` frames of the latest reviews with all joints of an angle clicked. Errors: those of Library.
Result<std::vector<OwnFrame>> ownFrames(Library& library, std::size_t most = 3);

/// The pictures of the folder `shipped` (data/exercise), the same for every coach, and the own frames that
/// open, in an order of `seed`. Any thread. Errors: Cancelled, those of reading, Damaged.
Result<Exercise> makeExercise(const std::vector<OwnFrame>& own, const std::filesystem::path& shipped,
                              std::uint64_t seed, std::stop_token stop = {});

/// All runs, oldest first. Errors: Damaged.
Result<std::vector<ErrorRun>> errorRuns(Library& library);
/// Adds a run. Errors: those of Library.
Status keepRun(Library& library, const ErrorRun& run);

} // namespace jg
