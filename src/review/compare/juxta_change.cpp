// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/juxta_change.h"

#include <cmath>
#include <utility>

namespace jg {

namespace {

/// A number may come from another film of the pitch, which shows what this one can't.
View viewOf(const JuxtaEntry& e, const MeasureRow& r) {
    for (const DeliveryValue& d : r.deliveries)
        if (d.number == r.delivery) return d.view;
    return e.clip.view;
}

Likeness likenessOf(const JuxtaEntry& e, const MeasureRow& r) {
    const auto definition = e.definitions.find(r.id);
    return {viewOf(e, r),
            e.marks.conditions,
            r.value.unit,
            {},
            isLength(r.value.unit) ? e.heightM : 0,
            definition == e.definitions.end() ? std::string() : definition->second,
            turnSaidAt(r.value)};
}

/// Of one athlete only: another's pitches scatter otherwise.
OwnSpread spreadOfBoth(const JuxtaEntry& one, const MeasureRow& a, const JuxtaEntry& other,
                       const MeasureRow& b) {
    OwnSpread spread;
    if (one.athlete != other.athlete) return spread;
    if (a.spread) spread = spread.with(a.spread->sd, a.spread->pitches);
    const bool sameReview = one.key.review == other.key.review && !one.key.review.value.empty();
    if (b.spread && !sameReview) spread = spread.with(b.spread->sd, b.spread->pitches);
    return spread;
}

std::string definitionOf(const MeasureDefinition& m) {
    std::string text = std::to_string(static_cast<int>(m.kind)) + " " + std::to_string(m.sign);
    for (const Slot& slot : m.slots)
        text += " " + std::string(info(slot.landmark).id) + "@" + std::string(info(slot.at).id) + "+" +
                std::to_string(slot.frames);
    return text + " " + m.formula;
}

} // namespace

std::map<std::string, std::string> definitionsOf(const Playbook& playbook) {
    std::map<std::string, std::string> all;
    for (const MeasureDefinition& m : playbook.measures) all[m.id] = definitionOf(m);
    return all;
}

Estimate asShown(const MeasureValue& v) {
    return {*v.value, v.half95() / kSdsOf95};
}

Estimate differenceOf(const Estimate& before, const Estimate& after) {
    return {after.value - before.value, std::hypot(before.sd, after.sd)};
}

Message shortNameOf(const JuxtaChange& change, const Playbook& playbook) {
    if (!change.name.empty()) return change.name;
    const MeasureDefinition* m = playbook.measure(change.measure);
    return asIs(m ? m->shortName : change.measure);
}

Message fullNameOf(const JuxtaChange& change, const Playbook& playbook) {
    return change.name.empty() ? asIs(playbook.nameOfFinding(change.measure)) : change.name;
}

void tellChange(JuxtaChange& change, const Likeness& first, const Likeness& last, const Target& target,
                const OwnSpread& spread, bool overruled) {
    change.notComparable = whyNotComparable(first, last);
    if (!change.notComparable.empty() && (!overruled || first.unit != last.unit)) return;
    change.overruled = !change.notComparable.empty();
    change.notComparable = {};
    const Estimate before = asShown(*change.values[change.first]),
                   after = asShown(*change.values[change.last]);
    change.difference = differenceOf(before, after);
    change.trend = trendOf(target, before.value, before.sd, after.value, after.sd, spread);
}

std::optional<JuxtaChange> compareMeasure(const JuxtaEntry& one, const JuxtaEntry& other,
                                          const std::string& measure, bool overruled) {
    const MeasureRow *a = one.measured(measure), *b = other.measured(measure);
    if (!a || !b) return std::nullopt;
    JuxtaChange change{measure, {a->value, b->value}, 0, 1, {}, {}, {}, false};
    tellChange(change, likenessOf(one, *a), likenessOf(other, *b), b->target,
               spreadOfBoth(one, *a, other, *b), overruled);
    return change;
}

} // namespace jg
