// SPDX-License-Identifier: GPL-3.0-or-later
// Measures as CSV, with units and errors.
#pragma once

#include "review/assess/assess.h"

#include <string>

namespace jg {

/// A field as RFC 4180 wants it: in quotes where it must be. What a spreadsheet would take for a formula
/// begins with an apostrophe, so that it is shown. Pure.
std::string csvField(const std::string& field);

/// One row a measure: id, name, value, unit, sd, low95, high95, state, target, verdict, and over several
/// pitches their count, mean and spread. RFC 4180 quoting, point as decimal sign. Pure.
std::string measuresAsCsv(const Playbook& playbook, const Assessment& assessment);

} // namespace jg
