// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/figure.h"

#include <array>

namespace jg {

std::span<const FigureAngle> figureAngles() {
    using L = Landmark;
    static constexpr std::array<FigureAngle, 9> angles = {{
        {"lead-knee", L::LeadHip, L::LeadKnee, L::LeadAnkle},
        {"back-knee", L::BackHip, L::BackKnee, L::BackAnkle},
        {"legs", L::BackAnkle, L::Pelvis, L::LeadAnkle},
        {"lead-hip", L::Neck, L::LeadHip, L::LeadKnee},
        {"back-hip", L::Neck, L::BackHip, L::BackKnee},
        {"spine", L::Pelvis, L::MidBack, L::Neck},
        {"back-elbow", L::BackShoulder, L::BackElbow, L::BackWrist},
        {"lead-elbow", L::LeadShoulder, L::LeadElbow, L::LeadWrist},
        {"back-arm", L::LeadShoulder, L::BackShoulder, L::BackElbow},
    }};
    return angles;
}

Message FigureAngle::name() const {
    return msg("figure." + std::string(id));
}

namespace {

MeasureValue angleAt(const JuxtaEntry& entry, const Playbook& playbook, Moment moment,
                     const FigureAngle& angle, const std::vector<LimbTurn>& limbs) {
    MeasureDefinition m;
    m.id = "figure-" + std::string(angle.id);
    m.kind = MeasureKind::JointAngle;
    m.unit = "deg";
    m.slots = {{"a", angle.a, moment}, {"vertex", angle.vertex, moment}, {"b", angle.b, moment}};
    m.moments = {moment};
    m.views = {View::Open, View::Closed, View::Front, View::Rear};
    return evaluate(m, inputFor(entry.marks, playbook, m, entry.clip, entry.hand, limbs));
}

} // namespace

MeasureValue figureAngleAt(const JuxtaEntry& entry, const Playbook& playbook, Moment moment,
                           const FigureAngle& angle) {
    return angleAt(entry, playbook, moment, angle, limbsTurned(entry.marks));
}

std::vector<AngleChange> angleChanges(const JuxtaEntry& one, const JuxtaEntry& other,
                                      const Playbook& playbook, Moment moment) {
    std::vector<AngleChange> all;
    if (one.clip.view != other.clip.view) return all;
    const auto limbs = limbsTurned(one.marks), otherLimbs = limbsTurned(other.marks);
    for (const FigureAngle& angle : figureAngles()) {
        AngleChange change{&angle,
                           angleAt(one, playbook, moment, angle, limbs),
                           angleAt(other, playbook, moment, angle, otherLimbs),
                           {},
                           false};
        if (!change.before.value || !change.after.value) continue;
        const Estimate before = asShown(change.before), after = asShown(change.after);
        change.difference = differenceOf(before, after);
        change.real = reallyChanged(before.value, before.sd, after.value, after.sd);
        all.push_back(std::move(change));
    }
    return all;
}

} // namespace jg
