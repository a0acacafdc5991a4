// SPDX-License-Identifier: GPL-3.0-or-later
// The card: everything that is judged in one sheet, items by eye and measures by number or by hand.
#pragma once

#include "review/assess/assess.h"
#include "review/assess/guide.h"

#include <string>
#include <vector>

namespace jg {

/// One row of the card.
struct CardRow {
    std::string id; ///< of an item or a measure
    bool isMeasure = false;
    std::string group;
    Moment position = Moment::Set;
    int delivery = 1;           ///< whose grade or number it is
    std::optional<Grade> grade; ///< by eye or by hand
    bool looked = false;        ///< it has a grade, a number or an answer
    bool open = false;          ///< holds up sending
    std::string part;           ///< name of the approach's own part of the card; empty = of none
};

/// A part of the card that stands together, and how much of it is looked at.
struct CardPartCount {
    Message name;
    std::size_t first = 0; ///< row of the card
    std::size_t looked = 0, all = 0;
};

/// All items of the approach, findings of the coach's own, and all measures of the walk, by time or by body,
/// there in the approach's own parts if it has some; the order of the approach within a position. Pure.
std::vector<CardRow> cardOf(const Review& review, const Playbook& playbook, const Assessment& a,
                            WalkOrder order = WalkOrder::Time);

/// The parts of a card that is in the order of the body, one after the other. Pure.
std::vector<CardPartCount> partsOf(const std::vector<CardRow>& card);

/// The measure whose number stands behind a row of the card: itself, or the one that tells the same as the
/// item; null where there is none or it has no number and no answer.
const MeasureRow* numberBehind(const CardRow& row, const Playbook& playbook, const Assessment& a);

} // namespace jg
