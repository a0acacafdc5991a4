// SPDX-License-Identifier: GPL-3.0-or-later
// One number of two deliveries: whether it may be compared, and what has changed.
#pragma once

#include "review/compare/juxta_cell.h"
#include "review/compare/likeness.h"

#include <map>
#include <optional>
#include <string>

namespace jg {

/// One measure of two deliveries, as a sheet compares them; nothing when one has no number. Pure.
std::optional<JuxtaChange> compareMeasure(const JuxtaEntry& one, const JuxtaEntry& other,
                                          const std::string& measure, bool overruled = false);

/// Compares the numbers of a change's first and last row, like with like or by the coach's word: difference
/// and trend, or why not. Inches and percent of height can't be taken from each other, whatever is said.
/// Pure.
void tellChange(JuxtaChange& change, const Likeness& first, const Likeness& last, const Target& target,
                const OwnSpread& spread, bool overruled);

/// What a change is of, in short as it stands in a sheet, or in full.
Message shortNameOf(const JuxtaChange& change, const Playbook& playbook);
Message fullNameOf(const JuxtaChange& change, const Playbook& playbook);

/// What each measure of a playbook means, as text: two of one id with another text are not compared. Pure.
std::map<std::string, std::string> definitionsOf(const Playbook& playbook);

/// A number with the error that is shown of it, and how far one lies beyond another. Pure.
Estimate asShown(const MeasureValue& value);
Estimate differenceOf(const Estimate& before, const Estimate& after);

} // namespace jg
