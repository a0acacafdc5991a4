// SPDX-License-Identifier: GPL-3.0-or-later
// A pose pulled at one joint, as one pulls a jointed puppet: how a goal is made by hand.
#pragma once

#include "kinematics/ghost.h"

namespace jg {

/// The pose with `joint` as near to `to` as the limbs reach: every limb is as long as in `body`, what stands
/// stays (a foot that is pulled itself stands no more), hands and feet follow before hips and shoulders.
/// `body` and `pose` hold the same joints, in pixels. A joint that is in neither changes nothing. Pure; any
/// thread. Source: own choice of weights; the lengths are put right again and again, one limb at a time.
JointPlaces pulled(const JointPlaces& body, const JointPlaces& pose, const std::set<Landmark>& standing,
                   Landmark joint, ImagePoint to);

} // namespace jg
