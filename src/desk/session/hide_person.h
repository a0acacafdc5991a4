// SPDX-License-Identifier: GPL-3.0-or-later
// Follows somebody who is to be unrecognizable through a delivery's film.
#pragma once

#include "desk/jobs/clip_files.h"
#include "desk/session/review_session.h"

#include <functional>
#include <stop_token>

namespace jg {

/// Values for a job beside the window.
struct HidePlan {
    ClipFiles files;
    std::string id; ///< of the veil
    std::map<std::int64_t, PictureBox> drawn;
    FrameSpan span;
};

/// A box was drawn on a frame of the delivery in hand: of the veil that it lies on there, else of one
/// that was lost there and asks, else of a new one.
/// Errors: Refused when the box is smaller than eight pixels, or the frame lies outside of the delivery.
Result<HidePlan> hidePlan(ReviewSession& session, std::int64_t frame, PictureBox box);

/// The veil, with every fourth frame of its way (it goes evenly between) and the frames where it asks to be
/// drawn again. Opens the film; any one thread. Errors: those of Reader and followBox().
Result<Veil> followVeil(const HidePlan& plan, std::stop_token stop = {},
                        const std::function<void(double)>& progress = {});

/// "Followed over 142 frames. ...": what was done and what comes next.
Message wordsOf(const Veil& veil);

} // namespace jg
