#include "review/juxta.h"

#include "review/camera_place.h"
#include "review/feature_column.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// The middle of what is clicked on a frame, else of the body at Set, else of the picture.
double middleOf(const JuxtaEntry& e, std::int64_t frame) {
    double low = 0, high = 0;
    bool any = false;
    for (const auto& [key, mark] : e.marks.points) {
        if (key.frame != frame || !mark.hidden.empty() || key.landmark == Landmark::Rubber) continue;
        low = any ? std::min(low, mark.point.at.x) : mark.point.at.x;
        high = any ? std::max(high, mark.point.at.x) : mark.point.at.x;
        any = true;
    }
    if (any) return (low + high) / 2;
    const auto body = standingAtSet(e.marks);
    return body ? body->middle().x : e.clip.width / 2.0;
}

} // namespace

JuxtaCell cellAt(const JuxtaEntry& e, std::int64_t frame) {
    return {frame, middleOf(e, frame), {}};
}

namespace {

JuxtaCell cellOf(const JuxtaEntry& e, Moment moment) {
    const auto mark = e.marks.moments.find(moment);
    if (mark == e.marks.moments.end()) return {{}, 0, msg("juxta.not-set")};
    if (!mark->second.frame) return {{}, 0, msg("juxta.not-visible")};
    return cellAt(e, *mark->second.frame);
}

bool isOf(const MeasureDefinition& m, Moment moment) {
    return !m.moments.empty() && m.moments.back() == moment;
}

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

const MeasureRow* measured(const JuxtaEntry& e, const std::string& measure) {
    const MeasureRow* r = e.results.measure(measure);
    return r && r->value.value ? r : nullptr;
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

std::optional<JuxtaChange> changeOf(const std::vector<JuxtaRow>& rows, const std::string& measure,
                                    bool overruled) {
    std::optional<std::size_t> first, last;
    std::vector<std::optional<MeasureValue>> values;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const MeasureRow* m = measured(rows[r].entry, measure);
        values.push_back(m ? std::optional(m->value) : std::nullopt);
        if (!m) continue;
        if (!first) first = r;
        last = r;
    }
    if (!first || first == last) return std::nullopt;
    auto change = compareMeasure(rows[*first].entry, rows[*last].entry, measure, overruled);
    change->values = std::move(values);
    change->first = *first;
    change->last = *last;
    return change;
}

JuxtaColumn columnOf(const std::vector<JuxtaRow>& rows, const Playbook& playbook, Moment moment,
                     const std::set<std::string>& overruled) {
    JuxtaColumn column{moment, {}, {}};
    for (const JuxtaRow& row : rows) column.cells.push_back(cellOf(row.entry, moment));
    for (const MeasureRow& r : rows.back().entry.results.measures) {
        const MeasureDefinition* m = playbook.measure(r.id);
        if (!m || !isOf(*m, moment)) continue;
        if (auto change = changeOf(rows, r.id, overruled.contains(r.id)))
            column.changes.push_back(std::move(*change));
    }
    // What has changed is what is asked: it stands first.
    std::stable_partition(column.changes.begin(), column.changes.end(),
                          [](const JuxtaChange& c) { return c.trend && isReal(*c.trend); });
    return column;
}

} // namespace

std::optional<JuxtaFit> juxtaFitOf(const JuxtaEntry& e, Hand leading) {
    const auto body = standingAtSet(e.marks);
    if (!body || body->height().value <= 0) return std::nullopt;
    return JuxtaFit{body->height().value, body->ground.at.y, body->middle().x, e.hand != leading};
}

double bodyMiddleAt(const JuxtaEntry& e, std::int64_t frame) {
    constexpr int kFew = 3; // points that tell no body
    std::map<std::int64_t, int> counts;
    for (const auto& [key, mark] : e.marks.points)
        if (mark.hidden.empty() && key.landmark != Landmark::Rubber) ++counts[key.frame];
    std::optional<std::int64_t> before, after;
    for (const auto& [n, count] : counts) {
        if (count < kFew && n != e.marks.frameOf(Moment::Set)) continue;
        if (n <= frame) before = n;
        if (n >= frame && !after) after = n;
    }
    if (!before && !after) return middleOf(e, frame);
    if (!before || !after || *before == *after) return middleOf(e, before ? *before : *after);
    const double part = static_cast<double>(frame - *before) / static_cast<double>(*after - *before);
    return middleOf(e, *before) + part * (middleOf(e, *after) - middleOf(e, *before));
}

namespace {

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

Message captionOf(const JuxtaEntry& e) {
    return joined(ListStyle::Dots,
                  {asIs(e.name), e.baseline.empty() ? day(e.when, DateStyle::Year) : asIs(e.baseline)});
}

Message titleOf(const JuxtaSheet& sheet) {
    const JuxtaEntry &first = sheet.rows.front().entry, &last = sheet.rows.back().entry;
    return first.athlete == last.athlete
               ? msg("juxta.title-one", {{"name", last.name}, {"count", sheet.rows.size()}})
               : msg("juxta.title-two", {{"name", first.name}, {"other", last.name}});
}

Message mannerOf(const JuxtaSheet& sheet) {
    if (sheet.childBesideAdult()) return msg("juxta.child-beside-adult");
    const JuxtaEntry &first = sheet.rows.front().entry, &last = sheet.rows.back().entry;
    if (first.athlete == last.athlete && first.heightM > 0 && last.heightM - first.heightM > kGrownM)
        return msg("juxta.how-grown",
                   {{"name", last.name}, {"cm", std::lround((last.heightM - first.heightM) * 100)}});
    return msg("juxta.how");
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
    const MeasureRow *a = measured(one, measure), *b = measured(other, measure);
    if (!a || !b) return std::nullopt;
    JuxtaChange change{measure, {a->value, b->value}, 0, 1, {}, {}, {}, false};
    tellChange(change, likenessOf(one, *a), likenessOf(other, *b), b->target,
               spreadOfBoth(one, *a, other, *b), overruled);
    return change;
}

std::size_t JuxtaSheet::compared() const {
    std::size_t n = 0;
    for (const JuxtaColumn& c : columns)
        n += static_cast<std::size_t>(std::count_if(c.changes.begin(), c.changes.end(),
                                                    [](const auto& x) { return x.trend.has_value(); }));
    return n;
}

std::size_t JuxtaSheet::changed() const {
    std::size_t n = 0;
    for (const JuxtaColumn& c : columns)
        n += static_cast<std::size_t>(std::count_if(
            c.changes.begin(), c.changes.end(), [](const auto& x) { return x.trend && isReal(*x.trend); }));
    return n;
}

bool JuxtaSheet::childBesideAdult() const {
    constexpr int kGrown = 18;
    const auto grown = [](const JuxtaRow& r) { return r.entry.age >= kGrown; };
    return std::any_of(rows.begin(), rows.end(), grown) && !std::all_of(rows.begin(), rows.end(), grown);
}

Result<JuxtaSheet> layOutJuxta(std::vector<JuxtaEntry> entries, const Playbook& playbook,
                               const JuxtaWish& wish) {
    if (entries.size() < 2 || entries.size() > kMostJuxtaRows)
        return fail(ErrorCode::BadInput, msg("juxta.two-to-twelve"));
    if (!wish.asGiven)
        std::stable_sort(entries.begin(), entries.end(),
                         [](const JuxtaEntry& a, const JuxtaEntry& b) { return a.when < b.when; });
    JuxtaSheet sheet;
    const Hand leading = entries.back().hand;
    for (JuxtaEntry& e : entries) {
        auto fit = juxtaFitOf(e, leading);
        sheet.rows.push_back({std::move(e), fit});
    }
    std::vector<JuxtaAt> wanted = wish.columns;
    if (wanted.empty())
        for (const MomentInfo& m : keyPositions()) wanted.emplace_back(m.moment);
    for (const JuxtaAt& at : wanted) {
        const auto* feature = std::get_if<Feature>(&at);
        JuxtaColumn column = feature ? featureColumn(sheet.rows, *feature, wish.overruled)
                                     : columnOf(sheet.rows, playbook, std::get<Moment>(at), wish.overruled);
        if (!wish.columns.empty() || !column.changes.empty()) sheet.columns.push_back(std::move(column));
    }
    if (sheet.columns.empty()) return fail(ErrorCode::BadInput, msg("juxta.nothing-shared"));
    return sheet;
}

} // namespace jg
