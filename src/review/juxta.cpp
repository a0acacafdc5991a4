#include "review/juxta.h"

#include "review/camera_place.h"
#include "review/likeness.h"

#include <algorithm>

namespace jg {

namespace {

std::optional<JuxtaFit> fitOf(const JuxtaEntry& e, Hand leading) {
    const auto body = standingAtSet(e.marks);
    if (!body || body->height().value <= 0) return std::nullopt;
    return JuxtaFit{body->height().value, body->ground.at.y, e.hand != leading};
}

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

JuxtaCell cellOf(const JuxtaEntry& e, Moment moment) {
    const auto mark = e.marks.moments.find(moment);
    if (mark == e.marks.moments.end()) return {{}, 0, msg("juxta.not-set")};
    if (!mark->second.frame) return {{}, 0, msg("juxta.not-visible")};
    return {*mark->second.frame, middleOf(e, *mark->second.frame), {}};
}

bool isOf(const MeasureDefinition& m, Moment moment) {
    return !m.moments.empty() && m.moments.back() == moment;
}

/// Empty when they can be compared. Another hand is no reason, nor another approach.
Message whyNotComparable(const Likeness& one, const Likeness& other) {
    const auto unlike = firstUnlike(one, other);
    if (!unlike) return {};
    return msg(*unlike == Unlike::Side         ? "juxta.other-side"
               : *unlike == Unlike::Conditions ? "juxta.thrown-otherwise"
                                               : "juxta.other-unit");
}

std::optional<JuxtaChange> changeOf(const std::vector<JuxtaRow>& rows, const std::string& measure) {
    JuxtaChange change{measure, {}, {}, {}};
    const JuxtaEntry *first = nullptr, *last = nullptr;
    for (const JuxtaRow& row : rows) {
        const MeasureRow* r = row.entry.results.measure(measure);
        const bool has = r && r->value.value;
        change.values.push_back(has ? std::optional(r->value) : std::nullopt);
        if (!has) continue;
        if (!first) first = &row.entry;
        last = &row.entry;
    }
    if (!first || first == last) return std::nullopt;
    const MeasureRow &a = *first->results.measure(measure), &b = *last->results.measure(measure);
    change.notComparable = whyNotComparable({first->clip.view, first->marks.conditions, a.value.unit},
                                            {last->clip.view, last->marks.conditions, b.value.unit});
    if (change.notComparable.empty())
        change.trend = trendOf(b.target, *a.value.value, a.value.half95() / kSdsOf95, *b.value.value,
                               b.value.half95() / kSdsOf95);
    return change;
}

JuxtaColumn columnOf(const std::vector<JuxtaRow>& rows, const Playbook& playbook, Moment moment) {
    JuxtaColumn column{moment, {}, {}};
    for (const JuxtaRow& row : rows) column.cells.push_back(cellOf(row.entry, moment));
    for (const MeasureRow& r : rows.back().entry.results.measures) {
        const MeasureDefinition* m = playbook.measure(r.id);
        if (!m || !isOf(*m, moment)) continue;
        if (auto change = changeOf(rows, r.id)) column.changes.push_back(std::move(*change));
    }
    return column;
}

} // namespace

Result<JuxtaSheet> layOutJuxta(std::vector<JuxtaEntry> entries, const Playbook& playbook,
                               const std::vector<Moment>& moments) {
    if (entries.size() < 2 || entries.size() > kMostJuxtaRows)
        return fail(ErrorCode::BadInput, msg("juxta.two-to-twelve"));
    std::stable_sort(entries.begin(), entries.end(),
                     [](const JuxtaEntry& a, const JuxtaEntry& b) { return a.when < b.when; });
    JuxtaSheet sheet;
    const Hand leading = entries.back().hand;
    for (JuxtaEntry& e : entries) {
        auto fit = fitOf(e, leading);
        sheet.rows.push_back({std::move(e), fit});
    }
    std::vector<Moment> wanted = moments;
    if (wanted.empty())
        for (const MomentInfo& m : keyPositions()) wanted.push_back(m.moment);
    for (const Moment moment : wanted) {
        JuxtaColumn column = columnOf(sheet.rows, playbook, moment);
        if (!moments.empty() || !column.changes.empty()) sheet.columns.push_back(std::move(column));
    }
    if (sheet.columns.empty()) return fail(ErrorCode::BadInput, msg("juxta.nothing-shared"));
    return sheet;
}

} // namespace jg
