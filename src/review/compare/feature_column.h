// SPDX-License-Identifier: GPL-3.0-or-later
// A sheet's column at the moment that matters of a feature: when it came, and what the feature was then.
#pragma once

#include "review/compare/juxta_cell.h"

#include <set>
#include <string>
#include <vector>

namespace jg {

/// Cells where a curve is dense enough to tell the moment; else they say why. Two numbers below: its time
/// after first touch, and the feature's value at it, compared from the first row that has them to the last,
/// like with like. Pure.
JuxtaColumn featureColumn(const std::vector<JuxtaRow>& rows, Feature feature,
                          const std::set<std::string>& overruled);

} // namespace jg
