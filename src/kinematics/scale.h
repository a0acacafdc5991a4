// SPDX-License-Identifier: GPL-3.0-or-later
// Scale from things of known length in the picture, each with the plane it lies in.
#pragma once

#include "kinematics/anatomy.h"
#include "kinematics/estimate.h"
#include "kinematics/point.h"

#include <optional>
#include <span>
#include <string_view>

namespace jg {

enum class ScaleKind { Height, Rubber, RubberShort, Ball, Plate, Other, YouthRubber, YouthRubberShort };

struct ScaleInfo {
    ScaleKind kind;
    std::string_view id; ///< "rubber"
    double metres;       ///< 0 = the coach says it
    double planeSd;      ///< relative error of using it for the body, from the plane it lies in
    bool fromSide = true, fromEnds = true; ///< views that show its length: the sides; front and rear

    Message name() const;  ///< "rubber, long side"
    Message where() const; ///< which two ends to click
    bool seenFrom(View view) const { return isSideView(view) ? fromSide : fromEnds; }
};

/// All kinds, the best for the body first. Lengths: Official Baseball Rules 2.02, 2.04 and 3.01, and
/// youth rubbers of 18 by 4 in, from memory.
/// Errors of the plane: own choice, the thing's usual distance from the body's plane over 7 m.
std::span<const ScaleInfo> allScales();
const ScaleInfo& info(ScaleKind kind);
std::optional<ScaleKind> scaleFromId(std::string_view id);

/// A scale is used for the body only when its plane adds no more than this.
inline constexpr double kLargestPlaneSd = 0.1;

/// A length as people write it: "170 cm", "1.7 m", "67 in", "5 ft 7". Metres; nothing when it is none.
std::optional<double> metresFromWords(std::string_view words);

/// What lengths are told in, by the coach's choice.
enum class LengthUnit { Inches, Centimetres };
std::string_view idOf(LengthUnit unit); ///< "in" or "cm", as it stands behind a number
std::optional<LengthUnit> lengthUnitFromId(std::string_view id);
/// One of the unit in metres.
double metresOf(LengthUnit unit);

/// "24 in" or "61 cm", to the unit; a tenth below ten.
Message lengthInWords(double metres, LengthUnit unit);

/// A length seen in the picture.
struct SeenLength {
    ScaleKind kind = ScaleKind::Height;
    Estimate px;
    double metres = 0;
};

/// Pixels a metre for the body: click error and plane together. Value 0 when a length is 0.
Estimate pxPerMetre(const SeenLength& seen);

/// The scale with the smallest relative error among those valid for the body; nothing when none is.
std::optional<SeenLength> nearestScale(std::span<const SeenLength> seen);

} // namespace jg
