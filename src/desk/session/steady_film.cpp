// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/steady_film.h"

#include "film/steady.h"

#include <algorithm>
#include <cmath>

namespace jg {

Result<CameraShake> findShake(const ClipFiles& files, FrameSpan span, std::stop_token stop,
                              const std::function<void(double)>& progress) {
    auto clip = OpenClip::open(files, stop);
    if (!clip) return clip.error();
    const auto shifts = cameraShake(clip->source(), span.first, span.last, stop, progress);
    if (!shifts) return shifts.error();
    CameraShake shake{span.first, {}, 0, true};
    for (const CameraShift& s : *shifts) {
        shake.shifts[s.frame] = {s.by.x, s.by.y};
        shake.sdPx = std::max(shake.sdPx, s.sdPx);
    }
    return shake;
}

double largestShift(const CameraShake& shake) {
    double largest = 0;
    for (const auto& [frame, by] : shake.shifts) largest = std::max(largest, std::hypot(by.x, by.y));
    return largest;
}

} // namespace jg
