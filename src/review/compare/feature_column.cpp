// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/feature_column.h"

#include "review/compare/curve.h"
#include "review/compare/juxta_change.h"

namespace jg {

namespace {

MeasureValue numberOf(const std::string& id, double value, double half95, const std::string& unit) {
    MeasureValue v;
    v.id = id;
    v.value = value;
    v.unit = unit;
    v.sd = half95 / kSdsOf95;
    v.low95 = value - half95;
    v.high95 = value + half95;
    v.state = MeasureState::Measured;
    return v;
}

JuxtaCell featureCell(const JuxtaEntry& e, const FeatureCurve& curve) {
    if (const CurvePoint* p = pointAtEvent(curve)) return cellAt(e, p->frame);
    return {{}, 0, curve.why.empty() ? curve.noEvent : curve.why};
}

Likeness likenessAt(const JuxtaEntry& e, const std::string& unit) {
    const bool time = unit == "ms"; // it is the same, however the camera stood
    return {e.clip.view, e.marks.conditions, unit, {}, 0, {}, time || e.marks.turn.has_value()};
}

/// Of what each row has of it; nothing when fewer than two have any.
std::optional<JuxtaChange> changeOver(const std::vector<JuxtaRow>& rows, JuxtaChange change, bool overruled) {
    std::vector<std::size_t> known;
    for (std::size_t r = 0; r < rows.size(); ++r)
        if (change.values[r]) known.push_back(r);
    if (known.size() < 2) return std::nullopt;
    change.first = known.front();
    change.last = known.back();
    const std::string& unit = change.values[change.first]->unit;
    tellChange(change, likenessAt(rows[change.first].entry, unit), likenessAt(rows[change.last].entry, unit),
               Target{}, OwnSpread(), overruled);
    return change;
}

} // namespace

JuxtaColumn featureColumn(const std::vector<JuxtaRow>& rows, Feature feature,
                          const std::set<std::string>& overruled) {
    const std::string id(idOf(feature));
    JuxtaColumn column{feature, {}, {}};
    JuxtaChange when, what;
    when.measure = id + "-moment";
    when.name = msg("feature.after-touch");
    what.measure = id;
    what.name = nameOf(feature);
    for (const JuxtaRow& row : rows) {
        const FeatureCurve curve = featureCurve(row.entry, feature);
        column.cells.push_back(featureCell(row.entry, curve));
        const CurvePoint* p = pointAtEvent(curve);
        when.values.push_back(p ? std::optional(numberOf(when.measure, p->ms, curve.event->half95, "ms"))
                                : std::nullopt);
        what.values.push_back(p ? std::optional(numberOf(id, p->value, p->half95, unitOf(feature)))
                                : std::nullopt);
    }
    for (JuxtaChange* change : {&when, &what}) {
        const bool allTheSame = overruled.contains(change->measure);
        if (auto told = changeOver(rows, std::move(*change), allTheSame))
            column.changes.push_back(std::move(*told));
    }
    return column;
}

} // namespace jg
