// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/assess.h"

#include "kinematics/unit_words.h"
#include "review/assess/reasons.h"
#include "review/record/camera_place.h"
#include "review/record/deliveries.h"
#include "review/record/level.h"
#include "review/record/one_person.h"
#include "review/record/tried.h"

#include <algorithm>
#include <cmath>

namespace jg {

const MeasureRow* Assessment::measure(std::string_view id) const {
    const auto it = std::find_if(measures.begin(), measures.end(), [&](const auto& m) { return m.id == id; });
    return it == measures.end() ? nullptr : &*it;
}

const Judged* Assessment::judged(std::string_view id) const {
    const auto it =
        std::find_if(findings.begin(), findings.end(), [&](const Judged& j) { return j.finding.id == id; });
    return it == findings.end() ? nullptr : &*it;
}

SidedRow Assessment::sided(std::string_view id) const {
    SidedRow finding{std::string(id), {}};
    const Judged* j = judged(id);
    if (!j || j->strength || j->cannotTell) return finding;
    finding.side = j->finding.side;
    // Results that an older version kept have none of their own.
    const MeasureRow* row = finding.side.empty() ? measure(id) : nullptr;
    if (row && !row->byHand && row->judgement.gap != 0)
        finding.side = std::string(row->judgement.gap < 0 ? kBelow : kAbove);
    return finding;
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

/// Which scale the inches come from, and how sure it is.
Message scaleInWords(const DeliveryMarks& delivery, View view) {
    const auto scale = nearestScale(scalesSeen(delivery, view));
    const Estimate e = scale ? pxPerMetre(*scale) : Estimate{};
    if (e.value <= 0) return {};
    return msg("assess.scale-error", {{"scale", info(scale->kind).name()},
                                      {"percent", std::lround(std::max(1.0, 100 * e.half95() / e.value))}});
}

/// A reason why the measure can't be taken that lies in the review: a position or point that can't be seen.
Message hiddenReason(const DeliveryMarks& delivery, const MeasureDefinition& m) {
    for (const Moment moment : m.moments) {
        const auto it = delivery.moments.find(moment);
        if (it != delivery.moments.end() && !it->second.frame)
            return msg("assess.moment-is-not-visible-not-visible",
                       {{"position", info(moment).name()}, {"why", reasonInWords(it->second.notVisible)}});
    }
    for (const Slot& slot : m.slots) {
        const auto frame = delivery.frameOf(slot);
        const PointMark* p = frame ? delivery.point(*frame, slot.landmark) : nullptr;
        if (p && !p->hidden.empty())
            return msg("assess.the-landmark-is-hidden-hidden",
                       {{"landmark", info(slot.landmark).name()}, {"why", reasonInWords(p->hidden)}});
    }
    return {};
}

/// Perspective and the body's depth count, and how well it is known how the camera stood.
void placeCamera(const DeliveryMarks& delivery, const Playbook& playbook, const MeasureDefinition& m,
                 const Clip& clip, MeasureInput& in) {
    const CameraTurn turn = delivery.turn.value_or(kUnsaidTurn);
    in.yawDeg = {turn.deg, turn.sdDeg};
    in.yawSaid = delivery.turn.has_value();
    playbook.depths.fillMotions(m, in);
    in.camera = cameraPlaceOf(delivery, clip);
    if (in.camera) playbook.depths.fill(m, in);
}

void warnOfOthers(const DeliveryMarks& delivery, const MeasureDefinition& m, const std::vector<OddPair>& odd,
                  MeasureValue& v) {
    for (const OddPair& pair : odd)
        if (std::any_of(m.slots.begin(), m.slots.end(), [&](const Slot& s) {
                return delivery.frameOf(s) == pair.frame &&
                       (s.landmark == pair.from || s.landmark == pair.to);
            }))
            v.warnings.push_back(pair.words);
}

MeasureValue valueOf(const DeliveryMarks& delivery, const Playbook& playbook, const MeasureDefinition& m,
                     const Clip& clip, Hand hand, const std::vector<LimbTurn>& limbs,
                     const std::vector<OddPair>& odd) {
    if (const auto note = delivery.measureNotes.find(m.id); note != delivery.measureNotes.end()) {
        MeasureValue v;
        v.id = m.id;
        v.unit = m.unit;
        v.state = note->second.state;
        v.reason = reasonInWords(note->second.reason);
        return v;
    }
    MeasureValue v = evaluate(m, inputFor(delivery, playbook, m, clip, hand, limbs));
    if (v.value && v.unit == idOf(playbook.lengths)) v.warnings.push_back(scaleInWords(delivery, clip.view));
    if (v.value) warnOfOthers(delivery, m, odd, v);
    if (const Trial* trial = v.value ? trialOf(playbook, m.id, delivery, clip.captureFps) : nullptr;
        trial && !trial->keepsItsPromise())
        v.warnings.push_back(trialInWords(*trial));
    if (v.state == MeasureState::NotLookedAt) {
        if (auto reason = hiddenReason(delivery, m); !reason.empty()) {
            v.state = MeasureState::NotVisible;
            v.reason = std::move(reason);
        }
    }
    return v;
}

/// `target` is in the value's unit; nothing when it can't be.
Judgement judgementOf(const MeasureDefinition& m, const std::optional<Target>& target,
                      const MeasureValue& v) {
    if (v.value && target) return judge(*target, {*v.value, v.low95, v.high95}, m.protectsArm);
    if (m.kind == MeasureKind::Seen && v.state == MeasureState::Measured && target)
        return judgeSeen(*target, v.seen, m.protectsArm);
    Judgement j;
    if (v.value) {
        j.state = JudgeState::CannotTell;
        j.text = msg("assess.scale-wanted");
        return j;
    }
    j.state = v.state == MeasureState::NotVisible      ? JudgeState::NotVisible
              : v.state == MeasureState::NotApplicable ? JudgeState::NotApplicable
                                                       : JudgeState::NotLookedAt;
    j.text = v.reason;
    return j;
}

/// A delivery with what all its measures share.
struct SeenDelivery {
    const DeliveryMarks& marks;
    const Clip& clip;
    std::vector<LimbTurn> limbs;
    std::vector<OddPair> odd;
};

SeenDelivery seenDelivery(const DeliveryMarks& d, const std::vector<Clip>& clips) {
    return {d, filmOf(d, clips), limbsTurned(d), notOnePerson(d)};
}

/// The one assessed first.
std::vector<SeenDelivery> deliveriesOf(const Review& review, const DeliveryMarks& assessed,
                                       const std::vector<Clip>& clips) {
    std::vector<SeenDelivery> all = {seenDelivery(assessed, clips)};
    for (const DeliveryMarks& d : review.deliveries)
        if (&d != &assessed && !d.blank()) all.push_back(seenDelivery(d, clips));
    return all;
}

/// What the coach said counts before what the target says.
void judgeByHand(const MeasureDefinition& m, const Judging& judging, MeasureRow& row) {
    const auto& items = judging.approach.graded; // older playbooks have items that are called as a measure is
    const Grade* grade = judging.grade(row.delivery, m.id);
    if (!grade || std::find(items.begin(), items.end(), m.id) != items.end()) return;
    row.byHand = *grade;
    const auto verdict = verdictOf(*grade, m.protectsArm);
    if (!verdict) return;
    row.judgement.state = JudgeState::Graded;
    row.judgement.verdict = verdict;
    const bool byEye = row.value.state == MeasureState::NotVisible; // judged where it can't be measured
    row.judgement.text =
        joined(ListStyle::Sentences,
               {msg("assess.by-hand", {{"why", reasonInWords(grade->reason)}}),
                byEye ? msg("assess.by-eye", {{"views", viewsInWords(m.views)}}) : row.judgement.text});
}

/// A lenient row's miss is a small one; the arm's protection is never eased.
std::optional<Verdict> eased(std::optional<Verdict> verdict, const Approach& approach,
                             const std::string& row) {
    const bool isMiss = verdict == Verdict::Adjust || verdict == Verdict::Change;
    return isMiss && approach.isLenient(row) ? Verdict::Nearly : verdict;
}

/// Judges the number of a row by its target, in the number's unit, and by hand.
void judgeRow(const MeasureDefinition& m, const Target& target, const Judging& judging, MeasureRow& row) {
    const auto comparable = row.value.value ? targetIn(target, row.value.unit) : target;
    row.target = comparable.value_or(target);
    row.judgement = judgementOf(m, comparable, row.value);
    row.judgement.verdict = eased(row.judgement.verdict, judging.approach, m.id);
    if (!target.meantFor(judging.age))
        row.value.warnings.push_back(
            msg("assess.not-this-age", {{"from", target.ageFrom}, {"to", target.ageTo}}));
    judgeByHand(m, judging, row);
}

/// Takes the number of a film that can show what the one in hand can't; of the same pitch, if there is one.
void lookFromElsewhere(const MeasureDefinition& m, const std::vector<SeenDelivery>& seen,
                       const std::vector<Clip>& clips, MeasureRow& row) {
    if (row.value.value || m.seenFrom(seen.front().clip.view)) return;
    const DeliveryValue* best = nullptr;
    for (const DeliveryValue& d : row.deliveries)
        if (m.seenFrom(d.view) &&
            (!best || (d.pitch == seen.front().marks.pitch && best->pitch != seen.front().marks.pitch)))
            best = &d;
    if (best) {
        row.value = best->value;
        row.value.warnings.push_back(msg("assess.measured-on-the-view-film", {{"view", nameOf(best->view)}}));
        row.delivery = best->number;
        return;
    }
    for (const Clip& clip : clips)
        if (m.seenFrom(clip.view) && row.value.state == MeasureState::NotVisible) {
            row.value.reason =
                joined(ListStyle::Sentences, {row.value.reason, msg("assess.the-view-film-here-can-choose",
                                                                    {{"view", nameOf(clip.view)}})});
            return;
        }
}

/// Says what the number would be where a moment happened again; a place whose points are not clicked is
/// named.
void tellAgain(const SeenDelivery& d, const Playbook& playbook, const MeasureDefinition& m, Hand hand,
               MeasureValue& v) {
    for (const Moment moment : m.moments) {
        const auto at = d.marks.moments.find(moment);
        if (at == d.marks.moments.end()) continue;
        for (const std::int64_t frame : at->second.again) {
            DeliveryMarks there = d.marks;
            there.moments[moment].frame = frame;
            const MeasureValue again = valueOf(there, playbook, m, d.clip, hand, d.limbs, d.odd);
            const Message name = info(moment).name();
            if (again.value)
                v.warnings.push_back(msg(
                    "assess.again",
                    {{"position", name},
                     {"frame", frame},
                     {"number", withUnit(Decimal{*again.value, again.unit == "x" ? 1 : 0}, again.unit)}}));
            else
                v.warnings.push_back(msg("assess.again-open", {{"position", name}, {"frame", frame}}));
        }
    }
}

/// Says when a word about the camera would settle what can't be told.
void askForTurn(const SeenDelivery& d, const Playbook& playbook, const MeasureDefinition& m,
                const Target& target, Hand hand, MeasureRow& row) {
    if (row.judgement.state != JudgeState::CannotTell || d.marks.turn || row.delivery != d.marks.number)
        return;
    DeliveryMarks square = d.marks;
    square.turn = kSquareTurn;
    const MeasureValue v = valueOf(square, playbook, m, d.clip, hand, d.limbs, d.odd);
    if (v.value && judgementOf(m, targetIn(target, v.unit), v).verdict)
        row.judgement.text =
            joined(ListStyle::Sentences, {row.judgement.text, msg("assess.turn-would-settle")});
}

MeasureRow rowFor(const Playbook& playbook, const MeasureDefinition& m, const Target& target,
                  const Judging& judging, const std::vector<SeenDelivery>& seen,
                  const std::vector<Clip>& clips, Hand hand) {
    MeasureRow row{m.id, {}, {}, target, seen.front().marks.number, {}, {}, {}};
    for (const SeenDelivery& d : seen) {
        MeasureValue v = valueOf(d.marks, playbook, m, d.clip, hand, d.limbs, d.odd);
        if (&d == &seen.front()) row.value = v;
        if (!v.value || seen.size() < 2) continue;
        const auto comparable = targetIn(target, v.unit);
        const auto verdict = judgementOf(m, comparable, v).verdict;
        row.deliveries.push_back({d.marks.number, d.marks.pitch, d.clip.view, std::move(v), verdict, false});
    }
    tellAgain(seen.front(), playbook, m, hand, row.value);
    lookFromElsewhere(m, seen, clips, row);
    row.spread = spreadOf(row.deliveries);
    judgeRow(m, target, judging, row);
    askForTurn(seen.front(), playbook, m, target, hand, row);
    return row;
}

/// On which side of its target a number lies, or by the coach's word.
std::string sideOf(const MeasureDefinition& m, const MeasureRow& row) {
    if (!m.hasSides() || *row.judgement.verdict == Verdict::Keep) return {};
    if (row.byHand) return row.byHand->side;
    return std::string(row.judgement.gap < 0 ? kBelow : row.judgement.gap > 0 ? kAbove : "");
}

/// Counts a row, and what it finds.
void keepRow(const MeasureDefinition& m, const Approach& approach, MeasureRow row, Assessment& a) {
    const bool looked = row.value.state != MeasureState::NotLookedAt || row.byHand;
    if (looked || !approach.isLenient(m.id)) ++a.counts.measuresAll;
    if (looked) ++a.counts.measures;
    if (row.value.state == MeasureState::NotVisible && !(row.byHand && row.judgement.verdict)) {
        ++a.counts.measuresNotVisible;
        a.notSeen.push_back(msg("assess.not-seen", {{"what", m.name}, {"why", row.value.reason}}));
    }
    if (row.judgement.state == JudgeState::CannotTell)
        a.findings.push_back({{m.id, Verdict::Nearly, 0}, false, true});
    if (row.judgement.verdict)
        a.findings.push_back({{m.id, *row.judgement.verdict, row.judgement.gapInSds, sideOf(m, row)},
                              *row.judgement.verdict == Verdict::Keep,
                              false});
    a.measures.push_back(std::move(row));
}

void assessMeasures(const Review& review, const DeliveryMarks& assessed, const Playbook& playbook,
                    const std::vector<Clip>& clips, Hand hand, Assessment& a) {
    const std::vector<SeenDelivery> seen = deliveriesOf(review, assessed, clips);
    for (const Target& target : review.walkTargets())
        if (const MeasureDefinition* m = playbook.measure(target.measure))
            keepRow(*m, review.approach(), rowFor(playbook, *m, target, review.judging(), seen, clips, hand),
                    a);
}

/// The grade on the delivery assessed, else on the first that has one.
void findGrade(const Review& review, const DeliveryMarks& assessed, ItemRow& row) {
    const Judging& judging = review.judging();
    row.delivery = assessed.number;
    const Grade* grade = judging.grade(assessed.number, row.id);
    for (const DeliveryMarks& d : review.deliveries)
        if (!grade)
            if ((grade = judging.grade(d.number, row.id))) row.delivery = d.number;
    if (grade) row.grade = *grade;
}

Message reasonOf(const ItemRow& row, View view) {
    if (!row.seenFromHere && row.grade->reason.empty())
        return msg("assess.cant-be-judged-from-the-view", {{"view", nameOf(view)}});
    return reasonInWords(row.grade->reason);
}

/// The item that a pitch's outcome judges by itself.
constexpr std::string_view kOnTarget = "ball-on-target";
constexpr int kBestStep = 5;

/// What is looked at by eye: the card, findings of the coach's own, and a ball that went where it was meant
/// to.
std::vector<std::string> itemsToLookAt(const Review& review, const DeliveryMarks& assessed) {
    std::vector<std::string> ids = review.approach().graded;
    for (const OwnFinding& own : review.own) ids.push_back(own.id);
    const bool asked = std::find(ids.begin(), ids.end(), kOnTarget) != ids.end();
    if (!asked && assessed.conditions.went == Went::Target) ids.emplace_back(kOnTarget);
    return ids;
}

void assessItems(const Review& review, const DeliveryMarks& assessed, const Playbook& playbook,
                 const std::vector<Clip>& clips, Assessment& a) {
    for (const std::string& id : itemsToLookAt(review, assessed)) {
        const GradedItem* item = playbook.item(id);
        if (!item) continue;
        const bool seen =
            std::any_of(clips.begin(), clips.end(), [&](const Clip& c) { return item->seenFrom(c.view); });
        ItemRow row{id, std::nullopt, seen, assessed.number};
        findGrade(review, assessed, row);
        if (!row.grade && id == kOnTarget && assessed.conditions.went == Went::Target)
            row.grade = Grade{GradeState::Graded, kBestStep, {}, {}};
        if (!row.grade && !row.seenFromHere) row.grade = Grade{GradeState::NotVisible, 0, {}, {}};
        if (row.grade || !review.approach().isLenient(id)) ++a.counts.judgedAll;
        if (row.grade) {
            ++a.counts.judged;
            if (row.grade->state == GradeState::NotVisible)
                a.notSeen.push_back(
                    msg("assess.item-not-seen",
                        {{"what", item->name}, {"why", reasonOf(row, filmOf(assessed, clips).view)}}));
            if (row.grade->state == GradeState::CannotTell)
                a.findings.push_back({{id, Verdict::Nearly, 0}, false, true});
            if (const auto verdict = eased(verdictOf(*row.grade, item->protectsArm), review.approach(), id))
                a.findings.push_back({{id, *verdict, static_cast<double>(5 - row.grade->step),
                                       *verdict == Verdict::Keep ? std::string() : row.grade->side},
                                      *verdict == Verdict::Keep,
                                      false});
        }
        a.items.push_back(std::move(row));
    }
}

} // namespace

std::vector<LimbTurn> limbsTurned(const DeliveryMarks& delivery) {
    using L = Landmark;
    static constexpr std::pair<L, L> limbs[] = {
        {L::LeadHip, L::LeadKnee},       {L::LeadKnee, L::LeadAnkle},     {L::BackHip, L::BackKnee},
        {L::BackKnee, L::BackAnkle},     {L::LeadShoulder, L::LeadElbow}, {L::LeadElbow, L::LeadWrist},
        {L::BackShoulder, L::BackElbow}, {L::BackElbow, L::BackWrist}};
    std::vector<SeenLimb> seen;
    for (const auto& [moment, mark] : delivery.moments) {
        if (!mark.frame) continue;
        for (const auto& [from, to] : limbs) {
            const PointMark *a = delivery.seenPoint(*mark.frame, from),
                            *b = delivery.seenPoint(*mark.frame, to);
            if (!a || !b) continue;
            const ImagePoint v = b->point.at - a->point.at;
            seen.push_back(
                {from, to, moment, {std::hypot(v.x, v.y), std::hypot(a->point.sigmaPx, b->point.sigmaPx)}});
        }
    }
    return turnedLimbs(seen);
}

std::vector<SeenLength> scalesSeen(const DeliveryMarks& delivery, View view) {
    std::vector<SeenLength> seen;
    for (const auto& [kind, mark] : delivery.scales) {
        if (!info(kind).seenFrom(view)) continue;
        const ImagePoint v = mark.to - mark.from;
        seen.push_back({kind,
                        kind == ScaleKind::Height
                            ? heightOf(delivery)
                            : Estimate{std::hypot(v.x, v.y), std::sqrt(2.0) * kDefaultClickSigmaPx},
                        mark.metres});
    }
    return seen;
}

MeasureInput inputFor(const DeliveryMarks& delivery, const Playbook& playbook, const MeasureDefinition& m,
                      const Clip& clip, Hand hand, const std::vector<LimbTurn>& limbs) {
    MeasureInput in;
    in.limbs = limbs;
    if (const auto it = delivery.answers.find(m.id); it != delivery.answers.end()) {
        in.seen = it->second.seen;
        in.numbers = it->second.numbers;
    }
    in.hand = hand;
    in.view = clip.view;
    in.captureFps = clip.captureFps;
    in.lengths = playbook.lengths;
    const Level level = levelOf(delivery, clip, hand);
    in.rollDeg = level.rollDeg;
    in.levelBy = level.by;
    in.heightPx = heightOf(delivery);
    if (const auto scale = nearestScale(scalesSeen(delivery, clip.view))) in.pxPerM = pxPerMetre(*scale);
    for (const Moment moment : m.moments)
        if (const auto frame = delivery.frameOf(moment)) in.frames[moment] = *frame;
    for (const Slot& slot : m.slots) {
        const auto frame = delivery.frameOf(slot);
        if (const PointMark* p = frame ? delivery.seenPoint(*frame, slot.landmark) : nullptr)
            in.points[slot.name] = withLean(delivery.steadied(*frame, p->point), clip, in.heightPx.value);
    }
    placeCamera(delivery, playbook, m, clip, in);
    return in;
}

Assessment assess(const Review& review, const Playbook& playbook, const Clip& clip, Hand hand) {
    return assess(review, playbook, std::vector{clip}, hand);
}

Assessment assess(const Review& review, const Playbook& playbook, const std::vector<Clip>& clips, Hand hand,
                  int delivery) {
    const DeliveryMarks& assessed = review.deliveryOr(delivery);
    Assessment a;
    a.delivery = assessed.number;
    a.counts.positionsAll = static_cast<int>(keyPositions().size());
    for (const MomentInfo& m : keyPositions())
        if (assessed.moments.contains(m.moment)) ++a.counts.positions;
    assessMeasures(review, assessed, playbook, clips, hand, a);
    assessItems(review, assessed, playbook, clips, a);
    a.counts.saidAll = static_cast<int>(review.stops.size());
    for (const Stop& s : review.stops)
        if (review.takes.contains(s.id)) ++a.counts.said;
    a.counts.corrections = static_cast<int>(review.plan.corrections.size());
    a.counts.drills = static_cast<int>(review.plan.drills.size());
    for (const PlannedDrill& d : review.plan.drills)
        if (d.dose.missing() && !d.doseWaived) ++a.counts.drillsWithoutDose;
    return a;
}

Assessment assessGiven(const Review& review, const Playbook& playbook, const std::vector<Clip>& clips,
                       const std::vector<MeasureValue>& numbers) {
    const DeliveryMarks& assessed = review.deliveryOr(kLead);
    Assessment a;
    a.delivery = assessed.number;
    for (const Target& target : review.walkTargets()) {
        const MeasureDefinition* m = playbook.measure(target.measure);
        if (!m) continue;
        MeasureRow row{m->id, {}, {}, target, assessed.number, {}, {}, {}};
        row.value.id = m->id;
        row.value.unit = m->unit;
        for (const MeasureValue& v : numbers)
            if (v.id == m->id) row.value = v;
        judgeRow(*m, target, review.judging(), row);
        keepRow(*m, review.approach(), std::move(row), a);
    }
    assessItems(review, assessed, playbook, clips, a);
    return a;
}

Playbook withOwnFindings(Playbook playbook, const Review& review) {
    const auto isOwn = [](const std::string& id) { return id.starts_with(kOwnFinding); };
    std::erase_if(playbook.items, [&](const GradedItem& i) { return isOwn(i.id); });
    for (Drill& d : playbook.drills) std::erase_if(d.serves, isOwn);
    for (const OwnFinding& own : review.own) {
        GradedItem item;
        item.id = own.id;
        item.name = item.fault = item.goal = item.coach = own.words;
        item.group = own.group;
        item.views = {View::Open, View::Closed, View::Front, View::Rear};
        playbook.items.push_back(std::move(item));
        for (Drill& d : playbook.drills)
            if (d.id == own.drill) d.serves.insert(d.serves.begin(), own.id);
    }
    return playbook;
}

bool tellsNothing(const Assessment& a) {
    return !a.findings.empty() &&
           std::all_of(a.findings.begin(), a.findings.end(), [](const Judged& j) { return j.cannotTell; });
}

bool isSurelyGood(const MeasureRow& row) {
    if (!row.value.value || row.target.asksNothing() || row.target.type == TargetType::Options || row.byHand)
        return true;
    const auto target = targetIn(row.target, row.value.unit);
    if (!target) return true;
    const bool low = target->type == TargetType::AtLeast || target->type == TargetType::Band;
    const double top = target->type == TargetType::Band ? target->y : target->x;
    return (!low || row.value.low95 >= target->x) &&
           (target->type == TargetType::AtLeast || row.value.high95 <= top);
}

std::string goalOf(const Playbook& playbook, const Assessment& a, std::string_view finding) {
    const std::string side = a.sided(finding).side;
    if (const GradedItem* item = playbook.item(finding)) {
        const GradedItem::Side* own = item->side(side);
        return own ? own->goal : item->goal;
    }
    const MeasureDefinition* m = playbook.measure(finding);
    if (!m) return std::string(finding);
    const std::string& goal = m->kind == MeasureKind::Seen ? m->goal
                              : !m->hasSides()             ? m->goalUp
                              : side == kBelow             ? m->goalUp
                              : side == kAbove             ? m->goalDown
                                                           : m->name;
    return goal.empty() ? m->name : goal;
}

StageWork workAt(Stage stage, const Counts& c) {
    const auto counted = [](int done, int all) { return StageWork{done, all, all > 0 && done == all}; };
    switch (stage) {
    case Stage::Positions:
        return counted(c.positions, c.positionsAll);
    case Stage::Measure:
        return counted(c.measures, c.measuresAll);
    case Stage::Judge:
        return counted(c.judged, c.judgedAll);
    case Stage::Say:
        return counted(c.said, c.saidAll);
    case Stage::Prescribe: {
        StageWork work = counted(c.drills - c.drillsWithoutDose, c.drills);
        work.complete = work.complete && c.corrections > 0;
        return work;
    }
    case Stage::Look:
    case Stage::Send:
    case Stage::Sent:
        break;
    }
    return {};
}

} // namespace jg
