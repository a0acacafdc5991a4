// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/compare.h"

#include "coaching/teaching.h"

#include <algorithm>

namespace jg {

namespace {

bool holds(const std::vector<std::string>& ids, const std::string& id) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

/// Who set it for whom and why it is asked does not make another target.
bool asksTheSame(const Target& a, const Target& b) {
    return a.type == b.type && a.position == b.position && a.x == b.x && a.y == b.y && a.soft == b.soft &&
           a.good == b.good && a.unit == b.unit && a.wanted == b.wanted && a.nearly == b.nearly;
}

} // namespace

std::vector<RowDifference> compare(const Approach& one, const Approach& other) {
    std::vector<RowDifference> rows;
    for (const Target& t : one.targets) {
        const Target* same = other.targetOf(t.measure);
        if (!same || !asksTheSame(t, *same))
            rows.push_back({t.measure, false, &t, same, true, same != nullptr});
    }
    for (const Target& t : other.targets)
        if (!one.targetOf(t.measure)) rows.push_back({t.measure, false, nullptr, &t, false, true});
    for (const std::string& id : one.graded)
        if (!holds(other.graded, id)) rows.push_back({id, true, nullptr, nullptr, true, false});
    for (const std::string& id : other.graded)
        if (!holds(one.graded, id)) rows.push_back({id, true, nullptr, nullptr, false, true});
    return rows;
}

Message askedInWords(const Target* target) {
    if (!target || target->type == TargetType::Any) return msg("compare.not-asked");
    if (target->type == TargetType::Record) return msg("compare.recorded");
    return wordsOf(*target);
}

std::vector<Message> changesOf(const Playbook& playbook, const Approach& before, const Approach& after) {
    std::vector<Message> all;
    if (before.name != after.name) all.push_back(msg("compare.renamed", {{"name", after.name}}));
    if (before.ageFrom != after.ageFrom || before.ageTo != after.ageTo)
        all.push_back(msg("compare.ages", {{"from", after.ageFrom}, {"to", after.ageTo}}));
    if (before.teaching != after.teaching)
        all.push_back(msg("compare.teaching", {{"order", nameOf(after.teaching)}}));
    if (before.power != after.power) all.push_back(msg("compare.power"));
    if (before.parts != after.parts) all.push_back(msg("compare.parts"));
    for (const Target& t : after.targets)
        if (const Target* was = before.targetOf(t.measure);
            was && asksTheSame(t, *was) &&
            (t.why != was->why || t.ageFrom != was->ageFrom || t.ageTo != was->ageTo))
            all.push_back(msg("compare.words-changed", {{"measure", playbook.nameOfFinding(t.measure)}}));
    for (const RowDifference& row : compare(before, after)) {
        const std::string name = playbook.nameOfFinding(row.id);
        if (row.isItem)
            all.push_back(msg(row.inOther ? "compare.item-added" : "compare.item-left", {{"item", name}}));
        else
            all.push_back(msg(
                "compare.changed",
                {{"measure", name}, {"before", askedInWords(row.one)}, {"after", askedInWords(row.other)}}));
    }
    return all;
}

} // namespace jg
