// SPDX-License-Identifier: GPL-3.0-or-later
// The clicked figures of two deliveries at one position: angle by angle what is different.
#pragma once

#include "review/compare/juxta_change.h"

#include <span>
#include <string_view>
#include <vector>

namespace jg {

/// An angle of the jointed figure, seen in the picture's plane.
struct FigureAngle {
    std::string_view id; ///< "lead-knee"
    Landmark a, vertex, b;

    Message name() const; ///< "front knee"
};
std::span<const FigureAngle> figureAngles();

/// An angle on two figures.
struct AngleChange {
    const FigureAngle* angle = nullptr;
    MeasureValue before, after;
    Estimate difference;
    bool real = false; ///< beyond both errors
};

/// The angle of a delivery at a moment, with the very error that measures have (perspective, depth, turn).
/// Without a number when a joint is not clicked there. Pure.
MeasureValue figureAngleAt(const JuxtaEntry& entry, const Playbook& playbook, Moment moment,
                           const FigureAngle& angle);

/// All angles that both have at the moment. Empty when they were not filmed from the same side: angles in two
/// planes can't be taken from each other. Pure.
std::vector<AngleChange> angleChanges(const JuxtaEntry& one, const JuxtaEntry& other,
                                      const Playbook& playbook, Moment moment);

} // namespace jg
