// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/ghost.h"

#include "kinematics/degrees_to_inches.h"
#include "kinematics/geometry.h"
#include "review/assess/number_words.h"
#include "review/record/joints.h"

#include <cmath>

namespace jg {

namespace {

/// The nearest number that meets the target; nothing when it is met, or asks nothing.
std::optional<double> wantedOf(const Target& target, double value) {
    switch (target.type) {
    case TargetType::AtLeast:
        return value < target.x ? std::optional(target.x) : std::nullopt;
    case TargetType::AtMost:
        return value > target.x ? std::optional(target.x) : std::nullopt;
    case TargetType::Band:
        if (value < target.x) return target.x;
        return value > target.y ? std::optional(target.y) : std::nullopt;
    case TargetType::Options:
    case TargetType::Any:
    case TargetType::Record:
        break;
    }
    return std::nullopt;
}

bool liesInThePicture(MeasureKind kind) {
    return kind != MeasureKind::TurnSide && kind != MeasureKind::TurnFront &&
           kind != MeasureKind::TurnFrontSigned && kind != MeasureKind::TurnBetween;
}

/// The larger of several distances has a fold where they are alike: each is a part of its own.
std::vector<MeasureDefinition> smoothParts(const MeasureDefinition& m) {
    if (m.kind != MeasureKind::OffLine || m.slots.size() < 4) return {m};
    std::vector<MeasureDefinition> parts;
    for (std::size_t i = 2; i < m.slots.size(); ++i) {
        parts.push_back(m);
        parts.back().slots = {m.slots[0], m.slots[1], m.slots[i]};
    }
    return parts;
}

/// The measure's number alone, with the joints of one frame moved: all errors are left out.
std::function<double(const JointPlaces&)> numberOf(const MeasureDefinition& m, MeasureInput in,
                                                   const DeliveryMarks& delivery, std::int64_t frame) {
    for (auto& [name, point] : in.points) point.sigmaPx = point.leanPx = 0;
    in.motions.clear();
    for (Estimate* e : {&in.rollDeg, &in.yawDeg, &in.heightPx, &in.pxPerM}) e->sd = 0;
    in.heightDepth = {in.heightDepth.value};
    for (auto& [name, depth] : in.depths) depth = {depth.value};
    if (in.camera) in.camera->distance.sd = in.camera->pitchDeg.sd = 0;
    in.limbs.clear();
    std::vector<Slot> here;
    for (const Slot& slot : m.slots)
        if (delivery.frameOf(slot) == frame) here.push_back(slot);
    return [parts = smoothParts(m), in, here](const JointPlaces& pose) mutable {
        for (const Slot& slot : here)
            if (const auto it = pose.find(slot.landmark); it != pose.end())
                in.points[slot.name].at = it->second;
        if (parts.size() == 1) return evaluate(parts.front(), in).value.value_or(NAN);
        constexpr double kPower = 4; // smooth where two are alike; never below the largest
        double sum = 0;
        for (const MeasureDefinition& part : parts)
            sum += std::pow(evaluate(part, in).value.value_or(NAN), kPower);
        return std::pow(sum, 1 / kPower);
    };
}

/// A length of the picture as a coach says it.
struct Lengths {
    double pxPerUnit = 1;
    bool metres = true;                   ///< pxPerUnit is of a metre; else of a hundredth of the height
    bool pixels = false;                  ///< nothing gives a size
    LengthUnit told = LengthUnit::Inches; ///< in which a metre is told
    Message words(double px) const {
        if (metres) return lengthInWords(px / pxPerUnit, told);
        const double v = px / pxPerUnit;
        constexpr double kLeastTold = 0.1;
        const bool little = std::abs(v) < kLeastTold;
        const Decimal number = little ? Decimal{kLeastTold, 1} : Decimal{v, std::abs(v) < 10 ? 1 : 0};
        const Message length = msg(pixels ? "ghost.pixels" : "ghost.percent-of-height", {{"number", number}});
        return little ? msg("ghost.less-than", {{"length", length}}) : length;
    }
};

Lengths lengthsOf(const MeasureInput& in) {
    if (in.pxPerM.value > 0) return {in.pxPerM.value, true, false, in.lengths};
    if (in.heightPx.value > 0) return {in.heightPx.value / 100, false, false, in.lengths};
    return {1, false, true, in.lengths};
}

Message signedWords(double change, const std::string& unit) {
    return msg(change < 0 ? "ghost.less" : "ghost.more", {{"number", numberInWords(std::abs(change), unit)}});
}

/// "16 degrees x 17 in (pelvis to neck) = 4.7 in".
Message arcWords(double degrees, double limb, Landmark from, Landmark to, const Lengths& lengths) {
    return msg("ghost.arc", {{"angle", numberInWords(std::abs(degrees), "deg")},
                             {"limb", lengths.words(limb)},
                             {"from", info(from).name()},
                             {"to", info(to).name()},
                             {"length", lengths.words(arcLength(std::abs(degrees), limb))}});
}

/// An arc, or the chord of a stride; nothing for other measures.
Message formulaWords(const MeasureDefinition& m, const Ghost& g, const JointPlaces& before,
                     const Lengths& lengths) {
    const auto at = [&](std::size_t slot) { return before.at(m.slots[slot].landmark); };
    const auto onFrame = [&](std::size_t slot) { return before.contains(m.slots[slot].landmark); };
    if (m.kind == MeasureKind::JointAngle && onFrame(0) && onFrame(1) && onFrame(2)) {
        const double one = length(at(0) - at(1)), two = length(at(2) - at(1));
        if (m.slots[1].landmark == Landmark::Pelvis) {
            const double leg = (one + two) / 2;
            const double change = strideChord(g.after, leg) - strideChord(g.before, leg);
            return msg(g.after > g.before ? "ghost.stride-more" : "ghost.stride-less",
                       {{"leg", lengths.words(leg)}, {"length", lengths.words(std::abs(change))}});
        }
        const double moved0 = length(g.joints.at(m.slots[0].landmark) - at(0)),
                     moved2 = length(g.joints.at(m.slots[2].landmark) - at(2));
        const std::size_t end = moved0 > moved2 ? 0 : 2;
        const double limb = end == 0 ? one : two;
        return arcWords(g.after - g.before, limb, m.slots[1].landmark, m.slots[end].landmark, lengths);
    }
    if (m.isAngle() && m.slots.size() == 2 && onFrame(0) && onFrame(1)) {
        const double limb = length(at(1) - at(0));
        return arcWords(g.after - g.before, limb, m.slots[0].landmark, m.slots[1].landmark, lengths);
    }
    return {};
}

constexpr double kMovedPx = 2; ///< less is not seen beside the clicked pose

/// Of the moved joints, the one that goes furthest: "the pelvis goes 4.1 in".
Message furthestWords(const Ghost& g, const JointPlaces& before, const Lengths& lengths) {
    double most = 0;
    Landmark which = Landmark::Head;
    for (const auto& [joint, at] : g.joints)
        if (const double way = length(at - before.at(joint)); way > most) most = way, which = joint;
    if (most <= kMovedPx) return msg("ghost.unseen");
    return msg("ghost.furthest", {{"landmark", info(which).name()}, {"length", lengths.words(most)}});
}

/// The limbs and joints that are elsewhere than they were.
void drawMoved(const JointPlaces& from, const JointPlaces& to, MeasureGhost& ghost) {
    const auto moved = [&](Landmark l) {
        const auto was = from.find(l);
        return was == from.end() || length(to.at(l) - was->second) > kMovedPx;
    };
    for (const auto& [a, b] : limbsOf(to))
        if (moved(a) || moved(b)) ghost.limbs.emplace_back(to.at(a), to.at(b));
    for (const auto& [joint, at] : to)
        if (moved(joint)) ghost.joints.push_back(at);
    ghost.pose = to;
}

MeasureGhost drawn(const MeasureDefinition& m, const MeasureRow& row, const Ghost& g,
                   const JointPlaces& before, const MeasureInput& in, std::int64_t frame) {
    MeasureGhost result;
    result.frame = frame;
    drawMoved(before, g.joints, result);
    const std::size_t label = m.slots.size() == 3 ? 1 : m.slots.size() - 1;
    if (const auto it = g.joints.find(m.slots[label].landmark); it != g.joints.end())
        result.labelAt = it->second;
    result.label = numberInWords(std::round(g.after), row.value.unit);
    const Lengths lengths = lengthsOf(in);
    result.least = furthestWords(g, before, lengths);
    result.words = joined(ListStyle::Sentences, {signedWords(g.after - g.before, row.value.unit),
                                                 formulaWords(m, g, before, lengths),
                                                 msg("ghost.least", {{"change", result.least}})});
    return result;
}

} // namespace

MeasureGhost ghostByHand(const HandGoal& goal, const JointPlaces& clicked) {
    MeasureGhost ghost;
    ghost.frame = goal.frame;
    ghost.byHand = true;
    drawMoved(clicked, goal.joints, ghost);
    double most = -1;
    for (const auto& [joint, at] : goal.joints) {
        const auto was = clicked.find(joint);
        const double way = was == clicked.end() ? 0 : length(at - was->second);
        if (way > most) most = way, ghost.labelAt = at;
    }
    ghost.label = msg("ghost.by-hand");
    return ghost;
}

Result<MeasureGhost> ghostOf(const DeliveryMarks& delivery, const Playbook& playbook, const MeasureRow& row,
                             const Clip& clip, Hand hand) {
    const MeasureDefinition* m = playbook.measure(row.id);
    if (const auto own = delivery.goals.find(row.id); m && m->hasPoints() && own != delivery.goals.end() &&
                                                      own->second.frame == delivery.frameOf(m->slots.back()))
        return ghostByHand(own->second, jointsOn(delivery, own->second.frame));
    if (!m || !row.value.value)
        return fail(ErrorCode::Refused, msg("ghost.measure-it-first-then-its-target"));
    if (!m->hasPoints() || !liesInThePicture(m->kind))
        return fail(ErrorCode::Refused, msg("ghost.not-in-plane"));
    const auto wanted = row.value.unit == row.target.unit || row.target.unit.empty()
                            ? wantedOf(row.target, *row.value.value)
                            : std::nullopt;
    if (!wanted)
        return fail(ErrorCode::Refused,
                    row.target.type == TargetType::Any || row.target.type == TargetType::Record
                        ? msg("ghost.it-has-no-target-to-draw")
                        : msg("ghost.inside-target"));
    const auto frame = delivery.frameOf(m->slots.back());
    if (!frame) return fail(ErrorCode::Refused, msg("ghost.set-the-position-first"));
    const MeasureInput in = inputFor(delivery, playbook, *m, clip, hand);
    GhostTask task;
    task.joints = jointsOn(delivery, *frame);
    task.number = numberOf(*m, in, delivery, *frame);
    task.wanted = *wanted;
    task.largestStep = m->isAngle() ? 5 : 1;
    for (const Slot& slot : m->slots)
        if (delivery.frameOf(slot) == *frame) task.measured.insert(slot.landmark);
    setContacts(task, m->slots.back().at);
    task.ground = rotated({1, 0}, in.rollDeg.value);
    const auto solved = solveGhost(task);
    if (!solved) return solved.error();
    return drawn(*m, row, *solved, task.joints, in, *frame);
}

} // namespace jg
