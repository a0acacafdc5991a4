#include "review/level.h"

#include "kinematics/geometry.h"
#include "kinematics/measure.h"

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

Estimate rollFrom(const FreeMark& mark) {
    return rollFromLine({mark.points[0], kDefaultClickSigmaPx}, {mark.points[1], kDefaultClickSigmaPx});
}

} // namespace

Level levelOf(const DeliveryMarks& delivery, const Clip& clip, Hand hand) {
    constexpr double kMoundSdDeg = 0.7; // own choice: mounds are raked by hand
    constexpr double kEdgesSdDeg = 0.5; // own choice; a test holds the edges to half a degree
    if (const FreeMark* line = longest(delivery, {MarkKind::Plumb, MarkKind::Level}))
        return {rollFrom(*line), ""};
    const FreeMark* mound = longest(delivery, {MarkKind::Mound});
    if (const int along = targetDirectionX(hand, clip.view); mound && along != 0) {
        const Estimate slope = rollFrom(*mound);
        return {{slope.value - along * kMoundSlopeDeg, std::hypot(slope.sd, kMoundSdDeg)},
                "a mound that falls an inch a foot"};
    }
    if (clip.tiltDeg) return {{*clip.tiltDeg, kEdgesSdDeg}, "upright edges in the film"};
    return {};
}

} // namespace jg
