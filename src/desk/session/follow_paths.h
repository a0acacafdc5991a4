// SPDX-License-Identifier: GPL-3.0-or-later
// Follows the clicked landmarks of a delivery through its film.
#pragma once

#include "desk/jobs/clip_files.h"
#include "library/library.h"
#include "review/record/paths.h"

#include <functional>
#include <stop_token>

namespace jg {

/// Values for a job beside the window.
struct FollowPlan {
    ClipFiles files;
    std::vector<PathStretch> stretches;
};

/// Everything that can be followed now. Errors: Refused when no landmark was clicked on two frames.
Result<FollowPlan> followPlan(const Library& library, const Clip& clip, const DeliveryMarks& delivery);

/// Paths by landmark; where one was lost, the frame to click it on stands in `asks`. Opens the film; any one
/// thread. Errors: those of Reader and followPoints().
Result<std::map<Landmark, FollowedPath>> followPaths(const FollowPlan& plan, std::stop_token stop = {},
                                                     const std::function<void(double)>& progress = {});

/// "Followed 5 joints, 2 lost on the way. ...": what was done and what comes next.
Message wordsOf(const std::map<Landmark, FollowedPath>& paths);

} // namespace jg
