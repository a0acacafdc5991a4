// SPDX-License-Identifier: GPL-3.0-or-later
// Like is compared with like: what must agree before two numbers stand beside each other.
#pragma once

#include "kinematics/measure.h"
#include "review/record/conditions.h"

#include <optional>
#include <string>

namespace jg {

/// All of a number that decides with which others it may be compared.
struct Likeness {
    View view = View::Open;
    Conditions conditions;
    std::string unit;
    std::string approach = {};   ///< empty on both = what it was judged by does not matter
    double heightM = 0;          ///< of the body on that day, for a length; 0 = not known, or no length
    std::string definition = {}; ///< what the measure means; empty = not known, which is no reason
    bool turnSaid = true;        ///< somebody said how the camera stood, where that counts
};

enum class Unlike { Side, Approach, Conditions, Unit, Definition, Height, Turn };

/// Lengths of a body that grew by more than this are not taken from each other: own choice, what two
/// measurings of one height differ by.
inline constexpr double kGrownM = 0.02;

/// A length in units of the world, which grows with the body. Pure.
bool isLength(const std::string& unit);

/// Whether it is known how the camera stood at a number that its turn can change. Pure.
bool turnSaidAt(const MeasureValue& value);

/// The first in which two differ; nothing when they may be compared. Common practice, no source. Pure.
std::optional<Unlike> firstUnlike(const Likeness& one, const Likeness& other);
/// The same in words of a sheet; empty when they may be compared. Pure.
Message whyNotComparable(const Likeness& one, const Likeness& other);

} // namespace jg
