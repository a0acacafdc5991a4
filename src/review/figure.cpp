#include "review/figure.h"

#include <array>
#include <cmath>

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

MeasureValue figureAngleAt(const JuxtaEntry& entry, const Playbook& playbook, Moment moment,
                           const FigureAngle& angle) {
    MeasureDefinition m;
    m.id = "figure-" + std::string(angle.id);
    m.kind = MeasureKind::JointAngle;
    m.unit = "deg";
    m.slots = {{"a", angle.a, moment}, {"vertex", angle.vertex, moment}, {"b", angle.b, moment}};
    m.moments = {moment};
    m.views = {View::Open, View::Closed, View::Front, View::Rear};
    return evaluate(m, inputFor(entry.marks, playbook, m, entry.clip, entry.hand, limbsTurned(entry.marks)));
}

std::vector<AngleChange> angleChanges(const JuxtaEntry& one, const JuxtaEntry& other,
                                      const Playbook& playbook, Moment moment) {
    std::vector<AngleChange> all;
    if (one.clip.view != other.clip.view) return all;
    for (const FigureAngle& angle : figureAngles()) {
        AngleChange change{&angle,
                           figureAngleAt(one, playbook, moment, angle),
                           figureAngleAt(other, playbook, moment, angle),
                           {},
                           false};
        if (!change.before.value || !change.after.value) continue;
        const double sdA = change.before.half95() / kSdsOf95, sdB = change.after.half95() / kSdsOf95;
        change.difference = {*change.after.value - *change.before.value, std::hypot(sdA, sdB)};
        change.real = reallyChanged(*change.before.value, sdA, *change.after.value, sdB);
        all.push_back(std::move(change));
    }
    return all;
}

} // namespace jg
