// SPDX-License-Identifier: GPL-3.0-or-later
// How far a line is turned, from how wide it looks.
#pragma once

#include "kinematics/estimate.h"

namespace jg {

enum class TurnSeen { FromSide, FromFront };

/// Degrees from closed (0: the line points to the target) to open (90); signed ones from -90. The 95 %
/// interval is not symmetric.
struct Turn {
    double deg = 0;
    double low95 = 0;
    double high95 = 0;
    /// A symmetric deviation of the same width.
    double sd() const { return (high95 - low95) / (2 * kSdsOf95); }
};

/// From the width now over the true width: seen from the side width = true cos(turn), from the front
/// true sin(turn). A ratio above 1 is read as 1, which is off by the excess at least: the
/// interval lies to one side. Near the ends, where cosine and sine are flat, the interval
/// comes from the ratio's own ends rather than from a slope. NaN for a ratio that is none. Pure.
Turn turnFromRatio(Estimate ratio, TurnSeen seen);

/// The same from the front for a line whose ends are told apart: a ratio of -1 to 1, negative on the other
/// side.
Turn signedTurnFromRatio(Estimate ratio);

} // namespace jg
