// SPDX-License-Identifier: GPL-3.0-or-later
// What a review says twice and differently.
#pragma once

#include "review/assess/assess.h"

#include <string>
#include <vector>

namespace jg {

/// Two things of one review that can't both be told. `stop`: it may not go out so.
struct Contradiction {
    std::string finding; ///< of the card, where the way out lies; empty = in the texts
    bool stop = true;
    Message text; ///< what differs, and what to do
};

/// All of them: an item against its measure, a stop or a correction against its verdict, left for right and a
/// number that is not the measured one in what the coach wrote, a target at a position its measure is not
/// taken at, and what is said in the film against what is in the letter. A grade with a remark is a decision
/// and is not listed. A strength that is a correction too is found by checkBeforeSending(). Pure.
std::vector<Contradiction> contradictionsIn(const Review& review, const Playbook& playbook,
                                            const Assessment& a, Hand hand);

} // namespace jg
