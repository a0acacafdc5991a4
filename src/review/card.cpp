#include "review/card.h"

#include <algorithm>

namespace jg {

namespace {

CardRow rowOf(const ItemRow& i, const GradedItem& item, const Approach& approach) {
    return {
        i.id, false, item.group, item.position, i.delivery, i.grade, !i.grade && !approach.isLenient(i.id)};
}

CardRow rowOf(const MeasureRow& m, const MeasureDefinition& definition, const Approach& approach) {
    const bool open = m.value.state == MeasureState::NotLookedAt && !m.byHand && !approach.isLenient(m.id);
    const Moment at = m.target.type == TargetType::Record ? definition.moments.back() : m.target.position;
    return {m.id, true, definition.group, at, m.delivery, m.byHand, open};
}

/// Place in the body: legs, trunk and head, arm, then what is of all.
std::ptrdiff_t partOf(const CardRow& row) {
    const auto groups = measureGroups();
    return std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.id == row.group; }) -
           groups.begin();
}

} // namespace

std::vector<CardRow> cardOf(const Review& review, const Playbook& playbook, const Assessment& a,
                            WalkOrder order) {
    std::vector<CardRow> rows;
    for (const ItemRow& i : a.items)
        if (const GradedItem* item = playbook.item(i.id)) rows.push_back(rowOf(i, *item, review.approach()));
    for (const MeasureRow& m : a.measures)
        if (const MeasureDefinition* definition = playbook.measure(m.id))
            rows.push_back(rowOf(m, *definition, review.approach()));
    std::stable_sort(rows.begin(), rows.end(),
                     [](const CardRow& x, const CardRow& y) { return x.position < y.position; });
    if (order == WalkOrder::Body)
        std::stable_sort(rows.begin(), rows.end(),
                         [](const CardRow& x, const CardRow& y) { return partOf(x) < partOf(y); });
    return rows;
}

const MeasureRow* numberBehind(const CardRow& row, const Playbook& playbook, const Assessment& a) {
    const GradedItem* item = row.isMeasure ? nullptr : playbook.item(row.id);
    const MeasureRow* m = a.measure(row.isMeasure ? row.id : item ? item->measure : "");
    return m && (m->value.value || !m->value.seen.empty()) ? m : nullptr;
}

} // namespace jg
