// SPDX-License-Identifier: GPL-3.0-or-later
// The ghost of one measure of a review: its target drawn on the athlete's own frame.
#pragma once

#include "kinematics/ghost.h"
#include "review/assess/assess.h"

#include <string>
#include <utility>
#include <vector>

namespace jg {

/// What is drawn, and what the change is in words.
struct MeasureGhost {
    std::int64_t frame = 0;
    bool byHand = false; ///< set by the coach: then it has no number, and `least` and `words` are empty
    JointPlaces pose;    ///< all joints, those that stay too
    std::vector<std::pair<ImagePoint, ImagePoint>> limbs; ///< those that moved
    std::vector<ImagePoint> joints;                       ///< ends of those limbs
    ImagePoint labelAt;
    Message label; ///< "106 deg"
    Message least; ///< "the pelvis goes 4.1 in"
    Message words; ///< the change in degrees and in inches, with formula and length
};

/// The ghost of a row on the frame of its last position: the coach's own where one was set there, else that
/// of the target of what was measured. Pure; any thread. Errors: Refused when there is nothing to draw (no
/// number, no target, inside it, not of the picture's plane); NotFound when no pose meets the target.
Result<MeasureGhost> ghostOf(const DeliveryMarks& delivery, const Playbook& playbook, const MeasureRow& row,
                             const Clip& clip, Hand hand);

/// A goal by hand beside the joints it was set from, for that frame.
MeasureGhost ghostByHand(const HandGoal& goal, const JointPlaces& clicked);

} // namespace jg
