// The formulas of the measures, on points that are level and square already.
#pragma once

#include "kinematics/catalogue.h"
#include "kinematics/point.h"

#include <array>
#include <vector>

namespace jg {

/// What a formula needs beside its points.
struct FormulaFrame {
    int targetX = 0;   ///< as targetDirectionX()
    int gloveX = 0;    ///< as gloveDirectionX()
    double unitPx = 1; ///< pixels that make one unit of length
};

/// The measure's number; points in the order of its slots. NaN where it has none (points on one spot), and
/// for kinds without points. Turns give the ratio of the widths, not the angle. Pure.
double formulaOn(const MeasureDefinition& measure, const std::vector<ImagePoint>& points,
                 const FormulaFrame& frame);

/// How far the ball is ahead of where the hand would hold it, t frames after the last frame that holds it, as
/// the coefficients of 1, t and t^2 in the points' unit. Points: ball and wrist on three frames in a row. The
/// free ball goes on evenly along its flight, the wrist by the parabola through its three places, and in the
/// hand the ball is as far ahead of it as on the first frame. NaN when the ball stands still. Pure.
std::array<double, 3> gainOfBall(const std::vector<ImagePoint>& points);

} // namespace jg
