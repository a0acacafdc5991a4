// SPDX-License-Identifier: GPL-3.0-or-later
// What to click next: each landmark of a frame once, all of one frame, then the next.
#pragma once

#include "review/assess/assess.h"

#include <optional>
#include <utility>
#include <vector>

namespace jg {

/// A point still to place, and the measures waiting for it.
struct GuideStep {
    Landmark landmark = Landmark::Head;
    Moment moment = Moment::Set;
    std::int64_t frame = 0;
    std::vector<std::string> measures;
    bool lost = false; ///< asked because its path was lost here; the moment is the one before
};

/// By time: all of one frame, then the next. By body: legs, then trunk and head, then the arm, each by time.
enum class WalkOrder { Time, Body };

/// All points still to place on a delivery for the approach's measures that this view can see and whose
/// positions are set, in the order asked for, and the places where a path was lost. Points placed or marked
/// hidden are left out. Pure.
std::vector<GuideStep> openSteps(const Review& review, const DeliveryMarks& delivery,
                                 const Playbook& playbook, const Clip& clip,
                                 WalkOrder order = WalkOrder::Time);

/// A marked delivery of the review other than `but` with points still to place, and how many; nothing when
/// all are placed. Pure.
std::optional<std::pair<int, std::size_t>>
openElsewhere(const Review& review, int but, const Playbook& playbook, const std::vector<Clip>& clips);

} // namespace jg
