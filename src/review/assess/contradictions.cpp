// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/contradictions.h"

#include "base/number.h"
#include "kinematics/unit_words.h"
#include "review/record/written.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

using Found = std::vector<Contradiction>;

bool isFault(Verdict v) {
    return v != Verdict::Keep && v != Verdict::Nearly;
}

/// An item graded against the number that tells the same; with a remark it is a decision.
void againstNumbers(const Playbook& playbook, const Assessment& a, Found& out) {
    for (const ItemRow& row : a.items) {
        const GradedItem* item = playbook.item(row.id);
        const MeasureRow* m = item ? a.measure(item->measure) : nullptr;
        if (!m || !m->judgement.verdict || m->byHand || !row.grade || !row.grade->reason.empty()) continue;
        const auto verdict = verdictOf(*row.grade, item->protectsArm);
        if (!verdict) continue;
        const bool kept = *verdict == Verdict::Keep && isFault(*m->judgement.verdict);
        const bool changed = isFault(*verdict) && *m->judgement.verdict == Verdict::Keep;
        if (kept || changed)
            out.push_back({row.id, true,
                           msg(kept ? "contradiction.kept" : "contradiction.changed",
                               {{"item", item->name},
                                {"measure", playbook.measure(m->id)->name},
                                {"number", m->judgement.text}})});
    }
}

void againstVerdicts(const Review& review, const Playbook& playbook, const Assessment& a, Found& out) {
    for (const Stop& s : review.stops) {
        const Judged* j = a.judged(s.finding);
        if (!j || j->cannotTell) continue;
        const std::string name = playbook.nameOfFinding(s.finding);
        if (s.kind == StopKind::Strength && !j->strength && isFault(j->finding.verdict))
            out.push_back({s.finding, true, msg("contradiction.stop-strength", {{"what", name}})});
        if (s.kind == StopKind::Correction && j->strength)
            out.push_back({s.finding, true, msg("contradiction.stop-correction", {{"what", name}})});
    }
    for (const std::string& id : review.plan.corrections)
        if (const Judged* j = a.judged(id); j && j->strength)
            out.push_back(
                {id, true, msg("contradiction.correction", {{"what", playbook.nameOfFinding(id)}})});
}

void voiceAgainstLetter(const Review& review, const Playbook& playbook, const Assessment& a, Found& out) {
    const auto& corrections = review.plan.corrections;
    if (review.takes.empty() || corrections.empty()) return;
    const auto inLetter = [&](const std::string& id) {
        return std::find(corrections.begin(), corrections.end(), id) != corrections.end();
    };
    const auto said = [&](const std::string& id) {
        return std::any_of(review.stops.begin(), review.stops.end(),
                           [&](const Stop& s) { return s.finding == id && s.kind == StopKind::Correction; });
    };
    for (const Stop& s : review.stops)
        if (s.kind == StopKind::Correction && review.takes.contains(s.id) && !inLetter(s.finding))
            out.push_back({s.finding, false, msg("contradiction.only-said", {{"what", s.title}})});
    for (const std::string& id : corrections)
        if (!said(id))
            out.push_back(
                {id, false, msg("contradiction.only-written", {{"what", goalOf(playbook, a, id)}})});
}

void targetsElsewhere(const Playbook& playbook, const Assessment& a, Found& out) {
    for (const MeasureRow& row : a.measures) {
        const MeasureDefinition* m = playbook.measure(row.id);
        if (!m || row.target.asksNothing()) continue;
        if (std::find(m->moments.begin(), m->moments.end(), row.target.position) == m->moments.end())
            out.push_back({row.id, true,
                           msg("contradiction.position",
                               {{"measure", m->name}, {"position", info(row.target.position).name()}})});
    }
}

/// A text and the rows it speaks of.
struct Written {
    std::string text, about;
};

std::vector<Written> textsOf(const Review& review, const Assessment& a) {
    std::vector<Written> all = {{review.plan.opening, ""}, {review.plan.ask, ""}};
    for (const Stop& s : review.stops) all.insert(all.end(), {{s.title, s.finding}, {s.words, s.finding}});
    for (const auto& [key, sentence] : review.plan.sentences) // "why:front-knee"
        all.push_back({sentence.text, key.substr(std::min(key.find(':') + 1, key.size()))});
    for (const OwnFinding& f : review.own) all.push_back({f.words, f.id});
    for (const ItemRow& i : a.items)
        if (i.grade) all.push_back({i.grade->reason, i.id});
    for (const MeasureRow& m : a.measures)
        if (m.byHand) all.push_back({m.byHand->reason, m.id});
    std::erase_if(all, [](const Written& w) { return w.text.empty(); });
    return all;
}

void wrongSides(const std::vector<Written>& texts, Hand hand, Found& out) {
    for (const Written& w : texts)
        for (const std::string& words : wrongSidesIn(w.text, hand))
            out.push_back(
                {w.about, true, msg("contradiction.side", {{"words", words}, {"hand", nameOf(hand)}})});
}

bool fits(const WrittenNumber& n, const MeasureRow& row) {
    const double half = 0.5 * std::pow(10.0, -n.decimals);
    if (n.value >= row.value.low95 - half && n.value <= row.value.high95 + half) return true;
    const double limits[] = {row.target.x, row.target.y, row.target.good.value_or(row.target.x)};
    return std::any_of(std::begin(limits), std::end(limits),
                       [&](double limit) { return std::abs(n.value - limit) <= half; });
}

void wrongNumbers(const std::vector<Written>& texts, const Playbook& playbook, const Assessment& a,
                  Found& out) {
    for (const Written& w : texts)
        for (const MeasureRow& row : a.measures) {
            const MeasureDefinition* m = playbook.measure(row.id);
            if (!m || !row.value.value) continue;
            const GradedItem* item = playbook.item(w.about);
            const bool about = w.about == row.id || (item && item->measure == row.id);
            for (const WrittenNumber& n : numbersIn(w.text, about ? std::vector<std::string>{} : namesOf(*m)))
                if (n.unit == row.value.unit && !fits(n, row))
                    out.push_back(
                        {about ? w.about : "", true,
                         msg("contradiction.number",
                             {{"words", n.words},
                              {"measure", m->name},
                              {"number", withUnit(Decimal{*row.value.value, std::max(0, n.decimals)},
                                                  row.value.unit)}})});
        }
}

} // namespace

std::vector<Contradiction> contradictionsIn(const Review& review, const Playbook& playbook,
                                            const Assessment& a, Hand hand) {
    Found out;
    againstNumbers(playbook, a, out);
    againstVerdicts(review, playbook, a, out);
    targetsElsewhere(playbook, a, out);
    const auto texts = textsOf(review, a);
    wrongSides(texts, hand, out);
    wrongNumbers(texts, playbook, a, out);
    voiceAgainstLetter(review, playbook, a, out);
    return out;
}

} // namespace jg
