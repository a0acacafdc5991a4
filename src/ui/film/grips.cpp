// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/grips.h"

#include "kinematics/geometry.h"

namespace jg::ui {

std::optional<Grip> gripAt(const DeliveryMarks& delivery, std::int64_t frame, ImagePoint at, double reach) {
    std::optional<Grip> best;
    double nearest = reach;
    const auto offer = [&](ImagePoint p, Grip grip) {
        const double d = length(p - at);
        if (d < nearest) nearest = d, best = std::move(grip);
    };
    for (const auto& [key, mark] : delivery.points)
        if (key.frame == frame && mark.hidden.empty()) offer(mark.point.at, {key, "", 0});
    for (const auto& [id, mark] : delivery.marks)
        if (mark.frame == frame || mark.kind == MarkKind::HeadBox)
            for (std::size_t i = 0; i < mark.points.size(); ++i) offer(mark.points[i], {std::nullopt, id, i});
    return best;
}

std::optional<ImagePoint> placeOf(const DeliveryMarks& delivery, const Grip& grip) {
    if (grip.point) {
        const PointMark* p = delivery.point(grip.point->frame, grip.point->landmark);
        return p ? std::optional(p->point.at) : std::nullopt;
    }
    const auto it = delivery.marks.find(grip.mark);
    return it == delivery.marks.end() ? std::nullopt : std::optional(it->second.points.at(grip.corner));
}

std::optional<Change> moved(const DeliveryMarks& delivery, const Grip& grip, ImagePoint to) {
    if (grip.point) {
        const PointMark* p = delivery.point(grip.point->frame, grip.point->landmark);
        if (!p) return std::nullopt;
        PointMark mark = *p;
        mark.point.at = to;
        return SetPoint{*grip.point, mark};
    }
    const auto it = delivery.marks.find(grip.mark);
    if (it == delivery.marks.end()) return std::nullopt;
    FreeMark mark = it->second;
    mark.points.at(grip.corner) = to;
    return SetMark{mark.id, mark};
}

Change removed(const Grip& grip) {
    if (grip.point) return SetPoint{*grip.point, std::nullopt};
    return SetMark{grip.mark, std::nullopt};
}

} // namespace jg::ui
