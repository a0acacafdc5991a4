// SPDX-License-Identifier: GPL-3.0-or-later
// What a coach films, clicks and says, made from a body.
#pragma once

#include "coaching/playbook.h"
#include "review/record/points_document.h"
#include "tests/bodies/made_body.h"

#include <random>
#include <string_view>

namespace jg {

enum class TurnSaid { Nothing, Square, Degrees };

struct Scenario {
    std::string_view name;
    double mostTurnDeg; ///< of the camera, to either side
    TurnSaid said;
    bool leans; ///< the coach clicks each joint a little off, always alike, and did no exercise
    double fps;
};

/// The rows of docs/accuracy.md.
std::span<const Scenario> scenarios();

/// Clicks on all points that the measures of a view ask for, on the frames that were picked: of release the
/// last with the ball in the hand, which is `afterFrameS` before it leaves.
PointsDocument clickedBy(const Scenario& scenario, const MadeBody& body, View view, const Playbook& playbook,
                         std::mt19937_64& engine, double& afterFrameS);

} // namespace jg
