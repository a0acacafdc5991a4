// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/outing.h"

#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"

#include <algorithm>
#include <map>

namespace jg {

namespace {

using OutingKey = std::pair<Date, std::string>; // day and measure

void addPitches(const ReviewOfAthlete& r, const Playbook& playbook, std::map<OutingKey, Outing>& outings) {
    if (!r.results) return;
    for (const MeasureRow& row : r.results->measures) {
        const MeasureDefinition* m = playbook.measure(row.id);
        if (!m) continue;
        for (const DeliveryMarks& d : r.deliveries) {
            const auto value = std::find_if(row.deliveries.begin(), row.deliveries.end(),
                                            [&](const DeliveryValue& v) { return v.number == d.number; });
            if (value == row.deliveries.end() || !d.conditions.numberInOuting || !value->value.value)
                continue;
            Outing& o = outings[{r.summary.date, row.id}];
            o.on = r.summary.date;
            o.measure = row.id;
            o.unit = value->value.unit;
            OutingPitch p{r.summary.id,
                          r.submission.id,
                          d.number,
                          {},
                          *d.conditions.numberInOuting,
                          *value->value.value,
                          value->value.half95(),
                          value->verdict && *value->verdict != Verdict::Keep,
                          d.conditions};
            if (!m->moments.empty()) p.frame = d.frameOf(m->moments.back());
            o.pitches.push_back(std::move(p));
        }
    }
}

Message wordsOf(const Outing& o) {
    if (o.pitches.size() < kFewestForChangePoint)
        return msg("outing.too-few", {{"count", o.pitches.size()}, {"needed", kFewestForChangePoint}});
    if (!o.change) return msg("outing.no-change", {{"count", o.pitches.size()}});
    const auto numberAt = [&](std::size_t i) { return o.pitches[std::min(i, o.pitches.size() - 1)].number; };
    return msg("outing.change", {{"pitch", numberAt(o.change->at)},
                                 {"low", numberAt(o.change->low)},
                                 {"high", numberAt(o.change->high)},
                                 {"before", numberInWords(o.change->before, o.unit)},
                                 {"after", numberInWords(o.change->after, o.unit)}});
}

void addWent(Outing& o) {
    std::map<Went, WentRow> rows;
    for (const OutingPitch& p : o.pitches) {
        if (p.conditions.went == Went::Unknown) continue;
        WentRow& row = rows[p.conditions.went];
        row.went = p.conditions.went;
        row.mean += p.value;
        ++row.count;
    }
    for (auto& [went, row] : rows) {
        row.mean /= row.count;
        o.went.push_back(row);
    }
    std::stable_sort(o.went.begin(), o.went.end(),
                     [](const WentRow& a, const WentRow& b) { return a.count > b.count; });
}

/// What the pitches say: the shuffling takes its time, so only of those that are shown.
void tell(Outing& o) {
    std::stable_sort(o.pitches.begin(), o.pitches.end(),
                     [](const OutingPitch& a, const OutingPitch& b) { return a.number < b.number; });
    std::vector<double> values, numbers;
    for (const OutingPitch& p : o.pitches) values.push_back(p.value), numbers.push_back(p.number);
    o.change = changePoint(values);
    o.withNumber = associationOf(numbers, values);
    addWent(o);
    o.inWords = wordsOf(o);
}

} // namespace

std::vector<Outing> newestOutings(const std::vector<ReviewOfAthlete>& reviews, const Playbook& playbook) {
    std::map<OutingKey, Outing> byKey;
    for (const ReviewOfAthlete& r : reviews) addPitches(r, playbook, byKey);
    std::vector<Outing> all;
    for (auto& [key, o] : byKey)
        if (o.pitches.size() > 1) all.push_back(std::move(o));
    const auto off = [](const Outing& o) {
        return std::count_if(o.pitches.begin(), o.pitches.end(), [](const OutingPitch& p) { return p.off; });
    };
    std::stable_sort(all.begin(), all.end(), [&](const Outing& a, const Outing& b) {
        return a.on != b.on ? a.on > b.on : off(a) > off(b);
    });
    const auto end =
        std::find_if(all.begin(), all.end(), [&](const Outing& o) { return o.on != all.front().on; });
    all.resize(std::min<std::size_t>(kMostOutings, static_cast<std::size_t>(end - all.begin())));
    for (Outing& o : all) tell(o);
    return all;
}

} // namespace jg
