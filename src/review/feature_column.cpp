#include "review/feature_column.h"

#include "review/curve.h"

#include <algorithm>

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

/// The curve's point at its moment; null when that can't be told.
const CurvePoint* pointOf(const FeatureCurve& curve) {
    if (!curve.event) return nullptr;
    const auto at = std::find_if(curve.points.begin(), curve.points.end(),
                                 [&](const CurvePoint& p) { return p.ms == curve.event->ms; });
    return at == curve.points.end() ? nullptr : &*at;
}

JuxtaCell featureCell(const JuxtaEntry& e, const FeatureCurve& curve) {
    if (const CurvePoint* p = pointOf(curve)) return cellAt(e, p->frame);
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
    const MeasureValue &a = *change.values[change.first], &b = *change.values[change.last];
    change.notComparable = whyNotComparable(likenessAt(rows[change.first].entry, a.unit),
                                            likenessAt(rows[change.last].entry, b.unit));
    if (!change.notComparable.empty() && !overruled) return change;
    change.overruled = !change.notComparable.empty();
    change.notComparable = {};
    const Estimate before = asShown(a), after = asShown(b);
    change.difference = differenceOf(before, after);
    change.trend = trendOf(Target{}, before.value, before.sd, after.value, after.sd, OwnSpread());
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
        const CurvePoint* p = pointOf(curve);
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
