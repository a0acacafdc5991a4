// SPDX-License-Identifier: GPL-3.0-or-later
// The deliveries of one review: which there are, and what they are called.
#pragma once

#include "review/record/people.h"
#include "review/record/review.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A delivery to be added to a review, nothing marked on it: its number, and the pitch it most likely shows.
/// That is the pitch in hand when the film is from another side and no film from that side shows it yet, else
/// a pitch of its own. Its conditions are those of the one in hand. Pure.
DeliveryMarks nextDelivery(const Review& review, int inHand, const Clip& clip, std::optional<FrameSpan> cut,
                           const std::vector<Clip>& clips);

/// The pitch of the delivery in hand, were it the same as that of another film, and were it one of its own.
struct PitchChoice {
    std::optional<int> shared; ///< the other film's pitch; nothing when no other film is from another side
    int own = 1;
};
PitchChoice pitchChoice(const Review& review, int inHand, const std::vector<Clip>& clips);

/// The film a delivery was marked on; the first when it is gone. `clips` must not be empty.
const Clip& filmOf(const DeliveryMarks& delivery, const std::vector<Clip>& clips);

/// "Pitch 2, front".
Message nameOf(const DeliveryMarks& delivery, const std::vector<Clip>& clips);

} // namespace jg
