// SPDX-License-Identifier: GPL-3.0-or-later
// The ghost: the smallest re-posing of clicked joints that meets a target.
#pragma once

#include "base/result.h"
#include "kinematics/anatomy.h"
#include "kinematics/point.h"

#include <functional>
#include <map>
#include <set>
#include <utility>
#include <vector>

namespace jg {

/// The joints of a body on one frame.
using JointPlaces = std::map<Landmark, ImagePoint>;

/// What a pose may do, and what it shall reach.
struct GhostTask {
    JointPlaces joints;                               ///< as clicked
    std::set<Landmark> standing;                      ///< stay where they are
    std::set<Landmark> measured;                      ///< the measure's own joints on this frame
    std::set<Landmark> sliding;                       ///< may only move along the ground
    ImagePoint ground{1, 0};                          ///< direction of the ground in the picture, of length 1
    std::function<double(const JointPlaces&)> number; ///< the measure's number; NaN where it has none
    double wanted = 0;                                ///< what that number shall be
    double largestStep = 5;                           ///< of the number, between two solutions on the way
};

struct Ghost {
    JointPlaces joints;
    double before = 0; ///< the measure's number of the clicked pose
    double after = 0;  ///< and of this one
};

/// The limbs between those joints that are in the pose, each a length that is kept. A joint that was not
/// clicked is skipped: the next two on the same chain are one limb then.
std::vector<std::pair<Landmark, Landmark>> limbsOf(const JointPlaces& pose);

/// Feet that carry at a key position: the back foot stays until it pushes off, the lead foot may land
/// elsewhere while it lands and stays once it is down. Any other moment: only the back toe stays.
void setContacts(GhostTask& task, Moment moment);

/// Least sum of squared joint movements with every limb's length kept and the contacts held. Half a hip's or
/// shoulder's width seen nearly end on keeps its direction too, unless that line is what is measured. By
/// sequential least squares from the clicked pose; the wanted number is approached in steps. Pure; any
/// thread. Errors: NotFound when no pose near the clicked one meets it.
Result<Ghost> solveGhost(const GhostTask& task);

} // namespace jg
