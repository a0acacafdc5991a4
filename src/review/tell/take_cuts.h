// SPDX-License-Identifier: GPL-3.0-or-later
// What is left out of a take: the silence at its ends, and what is too much of its pauses.
#pragma once

#include "review/record/review.h"

#include <vector>

namespace jg {

/// How much of a take's silence is left out.
enum class Shortening { None, Ends, Pauses };

/// So much silence stays before the first word, after the last, and of a pause. Own choice.
inline constexpr double kLeadInS = 0.25, kLeadOutS = 0.5, kPauseS = 0.7;

/// The cuts of a take in which `spoken` was said (rising, in samples of the file). Where something is shown,
/// drawn or played in a pause nothing is cut: from a moment before it until a moment after. Nothing is cut of
/// a take in which nothing was heard. Pure.
std::vector<SampleSpan> cutsOf(const Take& take, const std::vector<SampleSpan>& spoken, Shortening how);

/// The place in the file of a sample that is heard; the end of the file beyond the last. Pure.
std::int64_t inFile(const Take& take, std::int64_t heard);

/// What is heard of a file's sound: the cuts left out, each joint faded over, so that nothing clicks. Pure.
std::vector<float> heardOf(const Take& take, const std::vector<float>& file);

} // namespace jg
