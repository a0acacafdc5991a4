// SPDX-License-Identifier: GPL-3.0-or-later
// Finds how the camera of a review's film shook.
#pragma once

#include "desk/jobs/clip_files.h"
#include "review/record/review.h"

#include <functional>
#include <stop_token>

namespace jg {

/// The shake over the span, against its first frame. Opens the film; any one thread. Errors: those of Reader
/// and cameraShake().
Result<CameraShake> findShake(const ClipFiles& files, FrameSpan span, std::stop_token stop = {},
                              const std::function<void(double)>& progress = {});

/// The furthest the camera went from the reference, pixels.
double largestShift(const CameraShake& shake);

} // namespace jg
