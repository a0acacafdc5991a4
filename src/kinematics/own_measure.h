// SPDX-License-Identifier: GPL-3.0-or-later
// Measures a coach makes from the formula kinds; they behave like shipped ones.
#pragma once

#include "kinematics/catalogue.h"

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// A kind a coach can choose, and what it asks for.
struct OwnMeasureKind {
    std::string_view id;                  ///< as in the playbook file, "jointAngle"
    std::vector<std::string_view> points; ///< an id for each landmark to choose; for travel just one
    bool twoPositions = false;            ///< from one position to another
    bool sideOnly = false;                ///< means nothing from the front or behind
    std::string_view unit;

    Message name() const;                             ///< "Angle at a joint"
    Message how() const;                              ///< what the number will be
    static Message pointName(std::string_view point); ///< "upper end"
};
std::span<const OwnMeasureKind> ownMeasureKinds();

/// What the coach fills in.
struct OwnMeasureOrder {
    std::string name;
    std::string kind;
    std::vector<Landmark> landmarks;
    std::vector<Moment> positions; ///< one, or two
};

/// The measure's row as in the playbook file, its sentences in the coach's language by `say`: they are the
/// coach's own text from then on. Errors: BadInput, a sentence for each thing that is missing or
/// can't be: no name, the same landmark twice, positions missing or alike or out of order.
Result<std::string> ownMeasureRow(const OwnMeasureOrder& order,
                                  const std::function<std::string(const Message&)>& say);

} // namespace jg
