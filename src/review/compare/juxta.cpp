// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/juxta.h"

#include "review/compare/feature_column.h"

#include <algorithm>
#include <cmath>

namespace jg {

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

std::optional<JuxtaChange> changeOf(const std::vector<JuxtaRow>& rows, const std::string& measure,
                                    bool overruled) {
    std::optional<std::size_t> first, last;
    std::vector<std::optional<MeasureValue>> values;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const MeasureRow* m = rows[r].entry.measured(measure);
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
