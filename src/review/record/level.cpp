// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/level.h"

#include "kinematics/geometry.h"
#include "kinematics/roll.h"
#include "review/record/camera_place.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// The longest mark of the kinds; null without one.
const FreeMark* longest(const DeliveryMarks& delivery, std::initializer_list<MarkKind> kinds) {
    const FreeMark* best = nullptr;
    const auto run = [](const FreeMark& m) { return length(m.points[1] - m.points[0]); };
    for (const auto& [id, mark] : delivery.marks)
        for (const MarkKind kind : kinds)
            if (mark.kind == kind && (!best || run(mark) > run(*best))) best = &mark;
    return best;
}

ClickedPoint endOf(const FreeMark& mark, std::size_t which) {
    return {mark.points[which], kDefaultClickSigmaPx};
}

Estimate rollFrom(const FreeMark& mark) {
    return rollFromLine(endOf(mark, 0), endOf(mark, 1));
}

/// Without the lean that a camera looking down gives an upright line far from the middle.
Estimate rollFromUpright(const FreeMark& mark, const DeliveryMarks& delivery, const Clip& clip) {
    // Without a body to tell by: own choice, as phones show and as they are held.
    constexpr double kFocalWidths = 0.9;
    constexpr Estimate kPitchDeg{0, 3};
    CameraPlace place{centreOf(clip), {}, kPitchDeg, {}};
    double focalPx = kFocalWidths * std::max(clip.width, clip.height);
    if (const auto known = cameraPlaceOf(delivery, clip)) {
        place = *known;
        focalPx = known->distance.value * heightOf(delivery).value;
    }
    return rollFromPlumb(endOf(mark, 0), endOf(mark, 1), place, focalPx);
}

} // namespace

Level levelOf(const DeliveryMarks& delivery, const Clip& clip, Hand hand) {
    constexpr double kMoundSdDeg = 0.7; // own choice: mounds are raked by hand
    constexpr double kEdgesSdDeg = 0.5; // own choice; a test holds the edges to half a degree
    if (const FreeMark* line = longest(delivery, {MarkKind::Plumb, MarkKind::Level}))
        return {line->kind == MarkKind::Plumb ? rollFromUpright(*line, delivery, clip) : rollFrom(*line), {}};
    const FreeMark* mound = longest(delivery, {MarkKind::Mound});
    if (const int along = targetDirectionX(hand, clip.view); mound && along != 0) {
        const Estimate slope = rollFrom(*mound);
        return {{slope.value - along * kMoundSlopeDeg, std::hypot(slope.sd, kMoundSdDeg)},
                msg("level.mound")};
    }
    if (clip.tiltDeg) return {{*clip.tiltDeg, kEdgesSdDeg}, msg("level.edges")};
    return {};
}

} // namespace jg
