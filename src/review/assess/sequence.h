// SPDX-License-Identifier: GPL-3.0-or-later
// The order of a delivery's events in time, each with its error.
#pragma once

#include "review/record/people.h"
#include "review/record/review.h"

#include <string>
#include <vector>

namespace jg {

/// One event on the common clock.
struct SequenceEvent {
    Moment moment = Moment::Set;
    std::int64_t frame = 0;
    bool again = false;      ///< it happened on another frame too, which counts
    double ms = 0;           ///< from first touch
    double halfMs = 0;       ///< it lies this far round `ms`
    bool fromPath = false;   ///< a path suggests it, the coach has not set it
    Message after;           ///< what lies between this one and the one before it, or why that can't be told
    bool tooClose = false;   ///< nearer to the one before than the frames can tell apart
    bool outOfOrder = false; ///< surely before one that should come first
};

/// First touch, then hips, trunk, elbow, hand and release, with what else of the stride is set: by time.
/// Empty when first touch is not set or the rate is unknown. An event lies within a frame of where it is set;
/// one from a path as far as the path says. Pure. Source of the order: common practice, from the ground up.
/// `ball` is how long after its frame the ball left the hand, in ms, where that was measured.
std::vector<SequenceEvent> sequenceOf(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                                      const std::optional<Estimate>& ball = std::nullopt);

} // namespace jg
