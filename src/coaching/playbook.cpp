// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/playbook.h"

#include <algorithm>

namespace jg {

const Target* Approach::targetOf(std::string_view measure) const {
    const auto it =
        std::find_if(targets.begin(), targets.end(), [&](const Target& t) { return t.measure == measure; });
    return it == targets.end() ? nullptr : &*it;
}

bool Approach::isLenient(std::string_view row) const {
    return std::find(lenient.begin(), lenient.end(), row) != lenient.end();
}

bool GradedItem::seenFrom(View view) const {
    return std::find(views.begin(), views.end(), view) != views.end();
}

Message wordsOf(const Dose& dose) {
    if (dose.missing()) return msg("dose.missing");
    return dose.sets == 1 ? number(dose.reps) : msg("dose.times", {{"sets", dose.sets}, {"reps", dose.reps}});
}

namespace {
template <typename Row>
const Row* rowById(const std::vector<Row>& rows, std::string_view id) {
    const auto it = std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.id == id; });
    return it == rows.end() ? nullptr : &*it;
}
} // namespace

const GradedItem::Side* GradedItem::side(std::string_view name) const {
    const auto it = std::find_if(sides.begin(), sides.end(), [&](const Side& s) { return s.id == name; });
    return it == sides.end() ? nullptr : &*it;
}

bool Drill::trainsAgainst(const SidedRow& finding) const {
    return std::any_of(against.begin(), against.end(), [&](const std::string& text) {
        const SidedRow worse = sidedRowFrom(text);
        return worse.row == finding.row && worse.side == finding.side;
    });
}

std::vector<std::string> Playbook::sidesOf(std::string_view row) const {
    std::vector<std::string> sides;
    if (const MeasureDefinition* m = measure(row); m && m->hasSides())
        sides = {std::string(kBelow), std::string(kAbove)};
    if (const GradedItem* i = item(row))
        for (const GradedItem::Side& s : i->sides) sides.push_back(s.id);
    return sides;
}

bool Playbook::isFinding(const SidedRow& finding) const {
    if (finding.side.empty()) return isFinding(std::string_view(finding.row));
    const MeasureDefinition* m = measure(finding.row);
    const GradedItem* i = item(finding.row);
    return (m && (finding.side == kBelow || finding.side == kAbove)) || (i && i->side(finding.side));
}

std::optional<Moment> Playbook::shownAt(std::string_view row) const {
    if (const MeasureDefinition* m = measure(row))
        return m->moments.empty() ? std::nullopt : std::optional(m->shownAt());
    if (const GradedItem* i = item(row)) return i->position;
    return std::nullopt;
}

const Approach* Playbook::approach(std::string_view id) const {
    return rowById(approaches, id);
}
const GradedItem* Playbook::item(std::string_view id) const {
    return rowById(items, id);
}
const Drill* Playbook::drill(std::string_view id) const {
    return rowById(drills, id);
}
const FocusCard* Playbook::focus(std::string_view id) const {
    return rowById(focuses, id);
}

Approach focused(const Approach& approach, const FocusCard& focus) {
    const auto outside = [&](const std::string& row) {
        return std::find(focus.rows.begin(), focus.rows.end(), row) == focus.rows.end();
    };
    Approach a = approach;
    a.name += ": " + focus.name;
    a.lenient = focus.lenient;
    std::erase_if(a.targets, [&](const Target& t) { return outside(t.measure); });
    std::erase_if(a.graded, outside);
    for (const Target& t : focus.adds)
        if (!a.targetOf(t.measure)) a.targets.push_back(t);
    return a;
}

std::string Playbook::nameOfFinding(std::string_view id) const {
    if (const auto* m = measure(id)) return m->name;
    if (const auto* i = item(id)) return i->name;
    return std::string(id);
}

std::string Playbook::groupOfFinding(std::string_view id) const {
    if (const auto* m = measure(id)) return m->group;
    if (const auto* i = item(id)) return i->group;
    return {};
}

} // namespace jg
