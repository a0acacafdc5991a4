// SPDX-License-Identifier: GPL-3.0-or-later
// The files of one clip, opened for long work beside the window.
#pragma once

#include "film/film_source.h"
#include "library/library.h"

#include <filesystem>
#include <memory>
#include <stop_token>

namespace jg {

/// Where a clip's film and its scrub copy lie; the copy may not be made yet.
struct ClipFiles {
    std::filesystem::path film, scrub;
};
ClipFiles filesOf(const Library& library, const Clip& clip);

/// The scrub copy, or nothing when there is none that opens.
std::unique_ptr<Reader> openScrub(const std::filesystem::path& scrub, std::shared_ptr<FrameBudget> budget,
                                  std::stop_token stop);

/// Both of them open, with a small cache of their own. Belongs to one thread.
class OpenClip {
public:
    /// Errors: those of Reader for the film; a copy that does not open is done without.
    static Result<OpenClip> open(const ClipFiles& files, std::stop_token stop);
    FilmSource source() { return {*film_, scrub_.get()}; }

private:
    std::unique_ptr<Reader> film_, scrub_;
};

} // namespace jg
