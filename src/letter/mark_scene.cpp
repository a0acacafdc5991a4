// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/mark_scene.h"

#include "kinematics/geometry.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// The points of a measure that lie on this frame, in the order of its formula.
std::vector<ImagePoint> pointsOn(const DeliveryMarks& delivery, const MeasureDefinition& m,
                                 std::int64_t frame) {
    std::vector<ImagePoint> points;
    for (const Slot& slot : m.slots) {
        if (delivery.frameOf(slot) != frame) continue;
        if (const PointMark* p = delivery.seenPoint(frame, slot.landmark)) points.push_back(p->point.at);
    }
    return points;
}

ImagePoint middle(ImagePoint a, ImagePoint b) {
    return {(a.x + b.x) / 2, (a.y + b.y) / 2};
}

struct SceneMaker {
    MarkScene& scene;

    void angle(const std::vector<ImagePoint>& p, const Message& label, bool faint) {
        scene.lines.push_back({{p[0], p[1], p[2]}, false, faint});
        scene.arcs.push_back({p[0], p[1], p[2], faint});
        if (!faint) scene.labels.push_back({p[1], label, false});
    }

    void add(const MeasureDefinition& m, const std::vector<ImagePoint>& p, const Message& label, bool faint) {
        switch (m.kind) {
        case MeasureKind::JointAngle:
            if (p.size() == 3) angle(p, label, faint);
            return;
        case MeasureKind::ChangeOfAngle: // its number belongs to two frames and stands in the list
            if (p.size() == 3) scene.lines.push_back({p, false, faint});
            return;
        case MeasureKind::Tilt:
        case MeasureKind::TiltAcross:
        case MeasureKind::AboveLevel: {
            if (p.size() != 2) return;
            scene.lines.push_back({p, false, faint});
            const double run = length(p[1] - p[0]);
            const ImagePoint plumb = m.kind == MeasureKind::AboveLevel ? ImagePoint{p[1].x, p[0].y}
                                                                       : ImagePoint{p[0].x, p[0].y - run};
            scene.lines.push_back({{p[0], plumb}, true, faint});
            scene.arcs.push_back({plumb, p[0], p[1], faint});
            if (!faint) scene.labels.push_back({p[1], label, false});
            return;
        }
        case MeasureKind::AboveLine:
            if (p.size() != 3) return;
            scene.lines.push_back({{p[0], p[1], p[2]}, false, faint});
            scene.lines.push_back({{p[1], p[1] + (p[1] - p[0])}, true, faint});
            if (!faint) scene.labels.push_back({p[2], label, false});
            return;
        case MeasureKind::OffLine:
            if (p.size() < 3) return;
            scene.lines.push_back({{p[0], p[1]}, true, faint});
            for (std::size_t i = 2; i < p.size(); ++i) scene.points.push_back({p[i], faint});
            if (!faint) scene.labels.push_back({middle(p[0], p[1]), label, false});
            return;
        case MeasureKind::Ahead:
        case MeasureKind::Across:
        case MeasureKind::AcrossOf:
            if (p.size() < 2) return; // a plumb line through the first, level from it to the second
            scene.lines.push_back({{p[0], ImagePoint{p[0].x, p[1].y}, p[1]}, true, faint});
            if (!faint) scene.labels.push_back({p[1], label, false});
            return;
        case MeasureKind::LineToLine:
        case MeasureKind::Ratio:
            if (p.size() != 4) return;
            scene.lines.push_back({{p[0], p[1]}, false, faint});
            scene.lines.push_back({{p[2], p[3]}, false, faint});
            if (!faint) scene.labels.push_back({p[1], label, false});
            return;
        case MeasureKind::ChangeOfSlope:
        case MeasureKind::TurnSide:
        case MeasureKind::TurnFront:
        case MeasureKind::TurnFrontSigned:
        case MeasureKind::TurnBetween:
        case MeasureKind::ReleaseInstant:
            for (std::size_t i = 0; i + 1 < p.size(); i += 2)
                scene.lines.push_back({{p[i], p[i + 1]}, false, faint});
            if (p.size() >= 2 && !faint) scene.labels.push_back({p[1], label, false});
            return;
        case MeasureKind::Above:
        case MeasureKind::Distance:
            if (p.size() != 2) return;
            scene.lines.push_back({p, true, faint});
            if (!faint) scene.labels.push_back({middle(p[0], p[1]), label, false});
            return;
        case MeasureKind::Fall:
        case MeasureKind::FallAgainst:
        case MeasureKind::ShareAhead:
        case MeasureKind::Direction:
        case MeasureKind::ForwardDown:
            if (!p.empty() && !faint) scene.labels.push_back({p.back(), label, false});
            return;
        case MeasureKind::TimeBetween:
        case MeasureKind::FrameCount:
        case MeasureKind::Seen:
        case MeasureKind::Spin:
        case MeasureKind::LooksLike:
        case MeasureKind::BallSpeed:
        case MeasureKind::BallTurns:
            return;
        }
    }
};

void addScales(const DeliveryMarks& delivery, std::int64_t frame, MarkScene& scene) {
    for (const auto& [kind, mark] : delivery.scales) {
        if (kind == ScaleKind::Height || mark.frame != frame) continue;
        scene.lines.push_back({{mark.from, mark.to}, true, false});
        scene.labels.push_back(
            {middle(mark.from, mark.to),
             msg("scale.both", {{"inches", lengthInWords(mark.metres, LengthUnit::Inches)},
                                {"centimetres", lengthInWords(mark.metres, LengthUnit::Centimetres)}}),
             false});
    }
}

void addFreeMarks(const DeliveryMarks& delivery, std::int64_t frame, MarkScene& scene) {
    for (const auto& [id, mark] : delivery.marks) {
        const auto& p = mark.points;
        if (mark.kind == MarkKind::HeadBox) scene.boxes.push_back({p[0], p[1]});
        if (mark.frame != frame) continue;
        if (mark.kind == MarkKind::Angle) {
            scene.lines.push_back({p, false, false});
            scene.arcs.push_back({p[0], p[1], p[2], false});
            scene.labels.push_back({p[1], numberInWords(jointAngleDeg(p[0], p[1], p[2]), "deg"), false});
        } else if (mark.kind != MarkKind::HeadBox) {
            scene.lines.push_back({p, mark.kind != MarkKind::Line, false});
        }
    }
}

} // namespace

MarkScene sceneFor(const DeliveryMarks& delivery, const Playbook& playbook, const Assessment& a,
                   std::int64_t frame, const std::optional<std::string>& focus, const MeasureGhost* ghost,
                   bool family) {
    MarkScene scene;
    if (ghost && ghost->frame == frame)
        scene.ghost = SceneGhost{ghost->limbs, ghost->joints, {ghost->labelAt, ghost->label, false}};
    SceneMaker maker{scene};
    for (const auto& [key, mark] : delivery.points)
        if (key.frame == frame && mark.hidden.empty())
            scene.points.push_back({mark.point.at, focus.has_value()});
    for (const MeasureRow& row : a.measures) {
        const MeasureDefinition* m = playbook.measure(row.id);
        if (!m || !row.value.value) continue;
        const bool faint = focus && *focus != row.id;
        const auto points = pointsOn(delivery, *m, frame);
        maker.add(*m, points, labelOf(family ? asFamilySees(row).value : row.value), faint);
        if (focus && !faint)
            for (const ImagePoint p : points) scene.points.push_back({p, false});
    }
    addFreeMarks(delivery, frame, scene);
    if (!focus) addScales(delivery, frame, scene);
    return scene;
}

MarkScene onlyTheMatter(MarkScene scene) {
    const auto beside = [](const auto& mark) { return mark.faint; };
    std::erase_if(scene.lines, beside);
    std::erase_if(scene.points, beside);
    std::erase_if(scene.arcs, beside);
    std::erase_if(scene.labels, beside);
    return scene;
}

} // namespace jg
