// SPDX-License-Identifier: GPL-3.0-or-later
// The formulas of the measures, on points that are level and square already.
#pragma once

#include "kinematics/catalogue.h"
#include "kinematics/point.h"

#include <vector>

namespace jg {

/// What a formula needs beside its points.
struct FormulaFrame {
    int targetX = 0;   ///< as targetDirectionX()
    int gloveX = 0;    ///< as gloveDirectionX()
    double unitPx = 1; ///< pixels that make one unit of length
};

/// The measure's number; points in the order of its slots. NaN where it has none (points on one spot), for
/// kinds without points, and for those weighed from more than one formula (a turn between two lines, the
/// instant of release). Turns give the ratio of the widths, not the angle. Pure.
double formulaOn(const MeasureDefinition& measure, const std::vector<ImagePoint>& points,
                 const FormulaFrame& frame);

} // namespace jg
