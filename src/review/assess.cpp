#include "review/assess.h"

#include "kinematics/geometry.h"
#include "kinematics/place.h"

#include <algorithm>
#include <cmath>

namespace jg {

const MeasureRow* Assessment::measure(std::string_view id) const {
    const auto it = std::find_if(measures.begin(), measures.end(), [&](const auto& m) { return m.id == id; });
    return it == measures.end() ? nullptr : &*it;
}

std::vector<Finding> Assessment::faults() const {
    std::vector<Finding> all;
    for (const Judged& j : findings)
        if (!j.strength && !j.cannotTell) all.push_back(j.finding);
    return all;
}

std::optional<Verdict> verdictOf(const Grade& grade, bool protectsArm) {
    if (grade.state == GradeState::FaultAbsent) return Verdict::Keep;
    if (grade.state != GradeState::Graded) return std::nullopt;
    if (grade.step >= 5) return Verdict::Keep;
    if (grade.step == 4) return Verdict::Nearly;
    if (protectsArm) return Verdict::Protect;
    return grade.step >= 2 ? Verdict::Adjust : Verdict::Change;
}

namespace {

/// Standing height in pixels from the top of the head and the ground at Set.
Estimate heightOf(const Review& review) {
    const auto set = review.frameOf(Moment::Set);
    if (!set) return {0, 0};
    const PointMark* crown = review.point(*set, Landmark::Crown);
    const PointMark* ground = review.point(*set, Landmark::Ground);
    if (!crown || !ground || !crown->hidden.empty() || !ground->hidden.empty()) return {0, 0};
    const ImagePoint v = ground->point.at - crown->point.at;
    return {std::hypot(v.x, v.y), std::hypot(crown->point.sigmaPx, ground->point.sigmaPx)};
}

/// Roll from the level and plumb marks; the longest line is the best known.
Estimate rollOf(const Review& review) {
    double longest = 0;
    Estimate roll;
    for (const auto& [id, mark] : review.marks) {
        if (mark.kind != MarkKind::Plumb && mark.kind != MarkKind::Level) continue;
        const ImagePoint v = mark.points[1] - mark.points[0];
        const double run = std::hypot(v.x, v.y);
        if (run <= longest) continue;
        longest = run;
        roll = rollFromLine({mark.points[0], kDefaultClickSigmaPx}, {mark.points[1], kDefaultClickSigmaPx});
    }
    return roll;
}

/// Which scale the inches come from, and how sure it is.
std::string scaleInWords(const Review& review) {
    const auto scale = nearestScale(scalesSeen(review));
    const Estimate e = scale ? pxPerMetre(*scale) : Estimate{};
    if (e.value <= 0) return "";
    return "Scale from " + std::string(info(scale->kind).name) + ", give or take " +
           std::to_string(std::lround(std::max(1.0, 100 * e.half95() / e.value))) + " %.";
}

/// A reason why the measure can't be taken that lies in the review: a position or point that can't be seen.
std::string hiddenReason(const Review& review, const MeasureDefinition& m) {
    for (const Moment moment : m.moments) {
        const auto it = review.moments.find(moment);
        if (it != review.moments.end() && !it->second.frame)
            return std::string(info(moment).name) + " is not visible: " + it->second.notVisible + ".";
    }
    for (const Slot& slot : m.slots) {
        const auto frame = review.frameOf(slot.at);
        const PointMark* p = frame ? review.point(*frame, slot.landmark) : nullptr;
        if (p && !p->hidden.empty())
            return "The " + std::string(info(slot.landmark).name) + " is hidden: " + p->hidden + ".";
    }
    return "";
}

/// Once the coach says how the camera stood, perspective and the body's depth count.
void placeCamera(const Review& review, const Playbook& playbook, const MeasureDefinition& m, const Clip& clip,
                 MeasureInput& in) {
    constexpr double kTurnSdDeg = 3;           // own choice: a turn judged by eye or from the rubber
    constexpr Estimate kDistance = {4.2, 1.0}; // own choice, standing heights: phones are held 5 to 9 m away
    constexpr Estimate kLens = {0.6, 0.15}; // own choice: between belt and chest, as a re-film request asks
    const auto set = review.frameOf(Moment::Set);
    const PointMark* top = set ? review.point(*set, Landmark::Crown) : nullptr;
    const PointMark* foot = set ? review.point(*set, Landmark::Ground) : nullptr;
    if (!review.turn) return;
    in.yawDeg = {review.turn->deg, kTurnSdDeg};
    if (!top || !foot || !top->hidden.empty() || !foot->hidden.empty()) return;
    in.camera =
        CameraPlace{{clip.width / 2.0, clip.height / 2.0},
                    kDistance,
                    pitchFromGround((foot->point.at.y - clip.height / 2.0) /
                                        std::max(1.0, length(foot->point.at - top->point.at)),
                                    kLens, kDistance),
                    {(top->point.at.x + foot->point.at.x) / 2, (top->point.at.y + foot->point.at.y) / 2}};
    playbook.depths.fill(m, in);
}

MeasureValue valueOf(const Review& review, const Playbook& playbook, const MeasureDefinition& m,
                     const Clip& clip, Hand hand, const std::vector<LimbTurn>& limbs) {
    if (const auto note = review.measureNotes.find(m.id); note != review.measureNotes.end()) {
        MeasureValue v;
        v.id = m.id;
        v.unit = m.unit;
        v.state = note->second.state;
        v.reason = note->second.reason;
        return v;
    }
    MeasureValue v = evaluate(m, inputFor(review, playbook, m, clip, hand, limbs));
    if (v.value && v.unit == idOf(playbook.lengths)) v.warnings.push_back(scaleInWords(review));
    if (v.state == MeasureState::NotLookedAt) {
        if (auto reason = hiddenReason(review, m); !reason.empty()) {
            v.state = MeasureState::NotVisible;
            v.reason = std::move(reason);
        }
    }
    return v;
}

/// `target` is in the value's unit; nothing when it can't be.
Judgement judgementOf(const MeasureDefinition& m, const std::optional<Target>& target,
                      const MeasureValue& v) {
    if (v.value && target) return judge(*target, *v.value, v.sd, m.protectsArm);
    Judgement j;
    if (v.value) {
        j.state = JudgeState::CannotTell;
        j.text = "The target is a length: give a scale (S).";
        return j;
    }
    j.state = v.state == MeasureState::NotVisible      ? JudgeState::NotVisible
              : v.state == MeasureState::NotApplicable ? JudgeState::NotApplicable
                                                       : JudgeState::NotLookedAt;
    j.text = v.reason;
    return j;
}

void assessMeasures(const Review& review, const Playbook& playbook, const Clip& clip, Hand hand,
                    Assessment& a) {
    const std::vector<LimbTurn> limbs = limbsTurned(review);
    for (const Target& target : review.walkTargets()) {
        const MeasureDefinition* m = playbook.measure(target.measure);
        if (!m) continue;
        MeasureRow row{m->id, valueOf(review, playbook, *m, clip, hand, limbs), {}, target};
        const auto comparable = row.value.value ? targetIn(target, row.value.unit) : target;
        row.target = comparable.value_or(target);
        row.judgement = judgementOf(*m, comparable, row.value);
        ++a.counts.measuresAll;
        if (row.value.state != MeasureState::NotLookedAt) ++a.counts.measures;
        if (row.value.state == MeasureState::NotVisible) {
            ++a.counts.measuresNotVisible;
            a.notSeen.push_back(m->name + ": " + row.value.reason);
        }
        if (row.judgement.state == JudgeState::CannotTell)
            a.findings.push_back({{m->id, Verdict::Nearly, 0}, false, true});
        if (row.judgement.verdict)
            a.findings.push_back({{m->id, *row.judgement.verdict, row.judgement.gapInSds},
                                  *row.judgement.verdict == Verdict::Keep,
                                  false});
        a.measures.push_back(std::move(row));
    }
}

void assessItems(const Review& review, const Playbook& playbook, const Clip& clip, Assessment& a) {
    for (const std::string& id : review.approach.graded) {
        const GradedItem* item = playbook.item(id);
        if (!item) continue;
        ItemRow row{id, std::nullopt, item->seenFrom(clip.view)};
        if (const auto it = review.grades.find(id); it != review.grades.end()) row.grade = it->second;
        if (!row.grade && !row.seenFromHere)
            row.grade = Grade{GradeState::NotVisible, 0,
                              "can't be judged from the " + std::string(nameOf(clip.view))};
        ++a.counts.judgedAll;
        if (row.grade) {
            ++a.counts.judged;
            if (row.grade->state == GradeState::NotVisible)
                a.notSeen.push_back(item->name + ": " + row.grade->reason + ".");
            if (row.grade->state == GradeState::CannotTell)
                a.findings.push_back({{id, Verdict::Nearly, 0}, false, true});
            if (const auto verdict = verdictOf(*row.grade, item->protectsArm))
                a.findings.push_back({{id, *verdict, static_cast<double>(5 - row.grade->step)},
                                      *verdict == Verdict::Keep,
                                      false});
        }
        a.items.push_back(std::move(row));
    }
}

} // namespace

std::vector<LimbTurn> limbsTurned(const Review& review) {
    using L = Landmark;
    static constexpr std::pair<L, L> limbs[] = {
        {L::LeadHip, L::LeadKnee},       {L::LeadKnee, L::LeadAnkle},     {L::BackHip, L::BackKnee},
        {L::BackKnee, L::BackAnkle},     {L::LeadShoulder, L::LeadElbow}, {L::LeadElbow, L::LeadWrist},
        {L::BackShoulder, L::BackElbow}, {L::BackElbow, L::BackWrist}};
    std::vector<SeenLimb> seen;
    for (const auto& [moment, mark] : review.moments) {
        if (!mark.frame) continue;
        for (const auto& [from, to] : limbs) {
            const PointMark *a = review.point(*mark.frame, from), *b = review.point(*mark.frame, to);
            if (!a || !b || !a->hidden.empty() || !b->hidden.empty()) continue;
            const ImagePoint v = b->point.at - a->point.at;
            seen.push_back(
                {from, to, moment, {std::hypot(v.x, v.y), std::hypot(a->point.sigmaPx, b->point.sigmaPx)}});
        }
    }
    return turnedLimbs(seen);
}

std::vector<SeenLength> scalesSeen(const Review& review) {
    std::vector<SeenLength> seen;
    for (const auto& [kind, mark] : review.scales) {
        const ImagePoint v = mark.to - mark.from;
        seen.push_back({kind,
                        kind == ScaleKind::Height
                            ? heightOf(review)
                            : Estimate{std::hypot(v.x, v.y), std::sqrt(2.0) * kDefaultClickSigmaPx},
                        mark.metres});
    }
    return seen;
}

MeasureInput inputFor(const Review& review, const Playbook& playbook, const MeasureDefinition& m,
                      const Clip& clip, Hand hand, const std::vector<LimbTurn>& limbs) {
    MeasureInput in;
    in.limbs = limbs;
    if (const auto it = review.answers.find(m.id); it != review.answers.end()) {
        in.seen = it->second.seen;
        in.numbers = it->second.numbers;
    }
    in.hand = hand;
    in.view = clip.view;
    in.captureFps = clip.captureFps;
    in.lengths = playbook.lengths;
    in.rollDeg = rollOf(review);
    in.heightPx = heightOf(review);
    if (const auto scale = nearestScale(scalesSeen(review))) in.pxPerM = pxPerMetre(*scale);
    for (const Moment moment : m.moments)
        if (const auto frame = review.frameOf(moment)) in.frames[moment] = *frame;
    for (const Slot& slot : m.slots) {
        const auto frame = review.frameOf(slot.at);
        const PointMark* p = frame ? review.point(*frame, slot.landmark) : nullptr;
        if (p && p->hidden.empty()) in.points[slot.name] = review.steadied(*frame, p->point);
    }
    placeCamera(review, playbook, m, clip, in);
    return in;
}

Assessment assess(const Review& review, const Playbook& playbook, const Clip& clip, Hand hand) {
    Assessment a;
    a.counts.positionsAll = static_cast<int>(keyPositions().size());
    for (const MomentInfo& m : keyPositions())
        if (review.moments.contains(m.moment)) ++a.counts.positions;
    assessMeasures(review, playbook, clip, hand, a);
    assessItems(review, playbook, clip, a);
    a.counts.saidAll = static_cast<int>(review.stops.size());
    for (const Stop& s : review.stops)
        if (review.takes.contains(s.id)) ++a.counts.said;
    a.counts.corrections = static_cast<int>(review.plan.corrections.size());
    a.counts.drills = static_cast<int>(review.plan.drills.size());
    for (const PlannedDrill& d : review.plan.drills)
        if (d.dose.missing() && !d.doseWaived) ++a.counts.drillsWithoutDose;
    return a;
}

} // namespace jg
