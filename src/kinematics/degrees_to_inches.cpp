// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/degrees_to_inches.h"

#include "kinematics/geometry.h"

#include <cmath>

namespace jg {

double arcLength(double angleDeg, double length) {
    return angleDeg / kDegPerRad * length;
}

double strideChord(double spreadDeg, double leg) {
    return 2 * leg * std::sin(spreadDeg / 2 / kDegPerRad);
}

} // namespace jg
