// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/card.h"

#include <algorithm>

namespace jg {

namespace {

/// The approach's own part of the card that holds a row; null for none.
const CardPart* ownPartOf(const Approach& approach, const std::string& row) {
    const auto it = std::find_if(approach.parts.begin(), approach.parts.end(), [&](const CardPart& part) {
        return std::find(part.rows.begin(), part.rows.end(), row) != part.rows.end();
    });
    return it == approach.parts.end() ? nullptr : &*it;
}

CardRow rowOf(const ItemRow& i, const GradedItem& item, const Approach& approach) {
    const CardPart* part = ownPartOf(approach, i.id);
    const bool looked = i.grade.has_value();
    return {i.id,
            false,
            item.group,
            item.position,
            i.delivery,
            i.grade,
            looked,
            !looked && !approach.isLenient(i.id),
            part ? part->name : std::string()};
}

CardRow rowOf(const MeasureRow& m, const MeasureDefinition& definition, const Approach& approach) {
    const bool looked = m.value.state != MeasureState::NotLookedAt || m.byHand;
    const Moment at = m.target.type == TargetType::Record ? definition.moments.back() : m.target.position;
    const CardPart* part = ownPartOf(approach, m.id);
    return {m.id,
            true,
            definition.group,
            at,
            m.delivery,
            m.byHand,
            looked,
            !looked && !approach.isLenient(m.id),
            part ? part->name : std::string()};
}

/// Place in the approach's own parts, then in the body: legs, trunk and head, arm, what is of all.
std::size_t placeOf(const CardRow& row, const Approach& approach) {
    const auto own = std::find_if(approach.parts.begin(), approach.parts.end(),
                                  [&](const CardPart& part) { return part.name == row.part; });
    if (own != approach.parts.end()) return static_cast<std::size_t>(own - approach.parts.begin());
    return approach.parts.size() + placeInBody(row.group);
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
        std::stable_sort(rows.begin(), rows.end(), [&](const CardRow& x, const CardRow& y) {
            return placeOf(x, review.approach()) < placeOf(y, review.approach());
        });
    return rows;
}

std::vector<CardPartCount> partsOf(const std::vector<CardRow>& card) {
    std::vector<CardPartCount> parts;
    for (std::size_t i = 0; i < card.size(); ++i) {
        const auto kin = [&](const CardRow& other) {
            return other.part == card[i].part && (!card[i].part.empty() || other.group == card[i].group);
        };
        if (i == 0 || !kin(card[i - 1]))
            parts.push_back(
                {card[i].part.empty() ? nameOfGroup(card[i].group) : asIs(card[i].part), i, 0, 0});
        parts.back().looked += card[i].looked;
        ++parts.back().all;
    }
    return parts;
}

const MeasureRow* numberBehind(const CardRow& row, const Playbook& playbook, const Assessment& a) {
    const GradedItem* item = row.isMeasure ? nullptr : playbook.item(row.id);
    const MeasureRow* m = a.measure(row.isMeasure ? row.id : item ? item->measure : "");
    return m && (m->value.value || !m->value.seen.empty()) ? m : nullptr;
}

} // namespace jg
