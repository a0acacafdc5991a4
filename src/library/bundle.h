// SPDX-License-Identifier: GPL-3.0-or-later
// One athlete or one review in a single file that another copy of the program can open (docs/formats.md).
#pragma once

#include "library/library.h"

#include <filesystem>
#include <functional>
#include <optional>
#include <stop_token>
#include <vector>

namespace jg {

/// What goes into a bundle: an athlete with all that is theirs, or one review with its films.
struct BundleWish {
    AthleteId athlete;
    std::optional<ReviewId> review = {};
};

/// Writes it whole or not at all. Errors: NotFound, Damaged (a film or take is missing or altered),
/// Cancelled, DiskFull, WriteFailed.
Status exportBundle(Library& library, const BundleWish& wish, const std::filesystem::path& to,
                    std::stop_token stop = {}, const std::function<void(double)>& progress = {});

/// What a bundle brought.
struct BundleReport {
    AthleteId athlete;
    int added = 0;                ///< athletes, submissions and reviews that were not here
    int same = 0;                 ///< that were here as they are
    std::vector<Message> differs; ///< that are here otherwise: what is here stays, a sentence each
};

/// Takes a bundle in. All of it is checked before anything is written: every name, size, hash and document;
/// nothing that is here is doubled or overwritten. A review that differs is kept beside the one here as a
/// version; one that was sent elsewhere answers no film that waits here. Broken off, it is taken in again to
/// its end. Errors: NotFound, BadInput (no bundle, or a hostile one), Refused (a film or an id of it is
/// another's here; the athlete of that id is another person, or does not allow to be filmed, by what is known
/// here; nothing can be written), Cancelled, DiskFull, WriteFailed.
Result<BundleReport> importBundle(Library& library, const std::filesystem::path& from, Date today,
                                  std::stop_token stop = {},
                                  const std::function<void(double)>& progress = {});

} // namespace jg
