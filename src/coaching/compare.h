// SPDX-License-Identifier: GPL-3.0-or-later
// Two ways of judging side by side.
#pragma once

#include "coaching/playbook.h"

#include <string>
#include <vector>

namespace jg {

/// A row on which two approaches differ: a measure's target or a graded item that one of them looks at.
struct RowDifference {
    std::string id;
    bool isItem = false;
    const Target* one = nullptr; ///< null: not asked there
    const Target* other = nullptr;
    bool inOne = false, inOther = false;
};

/// The rows that differ, measures in the order of the first approach, then of the second, then items.
/// Pointers lead into the two approaches. Pure.
std::vector<RowDifference> compare(const Approach& one, const Approach& other);

/// What an edition changed against the one before, a sentence each. Pure.
std::vector<Message> changesOf(const Playbook& playbook, const Approach& before, const Approach& after);

/// What an approach asks of a measure, in words: a target's, "recorded", or "not asked". Pure.
Message askedInWords(const Target* target);

} // namespace jg
