// SPDX-License-Identifier: GPL-3.0-or-later
// Points from other programs: a document of positions and clicks, read as a review (docs/formats.md).
#pragma once

#include "base/result.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <string_view>
#include <vector>

namespace jg {

inline constexpr std::string_view kPointsFormat = "juxtagraph-points-1";

/// What a document of points holds: a review with one delivery a view, all of one pitch, and their films'
/// facts.
struct PointsDocument {
    Review review;
    std::vector<Clip> clips; ///< one a delivery
    Hand hand = Hand::Right;
};

/// Reads a document. A camera's turn of null, or none, is not known: 0 +- 6 degrees (own choice); "square" is
/// said by who wrote it. A point without a sigma has that of a click. The bracket of release is told by its
/// last frame with the ball. Errors: Damaged, with what is wrong and where.
Result<PointsDocument> readPointsDocument(std::string_view text);

} // namespace jg
