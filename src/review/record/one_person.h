// SPDX-License-Identifier: GPL-3.0-or-later
// Clicked joints that lie too far apart to be of one person.
#pragma once

#include "review/record/review.h"

#include <cstdint>
#include <string>
#include <vector>

namespace jg {

/// Two joints on one frame, further apart than any body is long there.
struct OddPair {
    std::int64_t frame = 0;
    Landmark from, to;
    Message words; ///< a sentence that names both and asks
};

/// Pairs of joints further apart than 1.35 times (own choice: perspective, clicks, odd proportions) what the
/// segment table of Drillis and Contini 1966 (from memory) gives for the standing height. That is the one
/// clicked at Set, else the one that the clicked limbs make likely; with too few of them nothing is said.
/// Pure.
std::vector<OddPair> notOnePerson(const DeliveryMarks& delivery);

} // namespace jg
