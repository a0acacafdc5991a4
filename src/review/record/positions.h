// SPDX-License-Identifier: GPL-3.0-or-later
// Setting the key positions: their order is enforced.
#pragma once

#include "base/result.h"
#include "review/record/review.h"

namespace jg {

/// Whether `moment` may lie at `frame` beside the positions already set. Errors: Refused, with a sentence
/// that names the position it would pass, or the delivery it lies outside of. Equal frames are allowed (at 30
/// a second layback and release can be one), except that the hands part after set and plant never comes
/// before first touch.
Status mayLieAt(const DeliveryMarks& delivery, Moment moment, std::int64_t frame, std::int64_t frames);

/// The position set on a frame: one where it happened too becomes the one that counts, and the one that
/// counted stays beside it; else it moves.
MomentMark movedTo(const MomentMark& mark, std::int64_t frame);

/// Whether it happened on this frame too, without counting there.
bool isAgain(const MomentMark& mark, std::int64_t frame);

/// The position with a frame on which it happened too; without it when it was one already. Errors: Refused
/// where it is not set yet, or counts on this very frame; those of mayLieAt() but for the order.
Result<MomentMark> happeningAgain(const DeliveryMarks& delivery, Moment moment, std::int64_t frame,
                                  std::int64_t frames);

/// Whether the review may be held to one delivery of the film. Errors: Refused, naming a position outside it.
Status mayCut(const DeliveryMarks& delivery, const FrameSpan& span);

} // namespace jg
