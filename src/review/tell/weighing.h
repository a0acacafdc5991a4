// SPDX-License-Identifier: GPL-3.0-or-later
// What may be behind a correction, as it was weighed: told to the coach, and in short to parents.
#pragma once

#include "coaching/hypotheses.h"
#include "review/assess/assess.h"
#include "review/record/review.h"

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// The causes that were weighed for one correction, told apart by what was found of them.
struct Weighed {
    std::string sign;
    std::vector<Hypothesis> likely;   ///< found on this athlete
    std::vector<Hypothesis> ruledOut; ///< looked at, and good
    std::vector<Hypothesis> open;     ///< not known yet; each says what would tell
};

/// Of each correction of the plan that has a cause to weigh, in the plan's order. Pure; any thread.
std::vector<Weighed> weighedIn(const Review& review, const Playbook& playbook, const Assessment& a);

/// Whether an opinion is the coach's own, everybody's, or of the school that judges.
bool isHeldBy(const Approach& approach, std::string_view says);

/// Only what the judging's school holds: what a family may be told. Empty when nothing is left.
Weighed heldBy(const Approach& approach, Weighed weighed);

/// Likely, ruled out and why, what would tell: a sentence each. Empty when nothing was weighed.
Message weighingInWords(const Playbook& playbook, const Assessment& a, const Weighed& weighed);

} // namespace jg
