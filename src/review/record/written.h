// SPDX-License-Identifier: GPL-3.0-or-later
// What a coach writes in free words, read for sides and numbers. English only; what it can't read it leaves
// alone.
#pragma once

#include "kinematics/catalogue.h"

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// A number with a unit in a text.
struct WrittenNumber {
    double value = 0;
    int decimals = 0;  ///< in which it was written; below zero = rounded to tens or hundreds
    std::string unit;  ///< deg | ms | % | in
    std::string words; ///< as it stands: "48 degrees"
};

/// The numbers with units of a text; with names only those of sentences in which one of the names stands.
/// Pure.
std::vector<WrittenNumber> numbersIn(std::string_view text, const std::vector<std::string>& names);

/// What a measure is called in a text: its names without the position behind the comma.
std::vector<std::string> namesOf(const MeasureDefinition& measure);

/// Pieces of a text that name the wrong side for this hand: "left throwing arm" of a right-hander, "right
/// front knee". Sides without a role can't be told and are left alone. Pure.
std::vector<std::string> wrongSidesIn(std::string_view text, Hand hand);

} // namespace jg
