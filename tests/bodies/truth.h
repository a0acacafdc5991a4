// SPDX-License-Identifier: GPL-3.0-or-later
// What a measure's number is of a body, without a camera.
#pragma once

#include "coaching/playbook.h"
#include "tests/bodies/made_body.h"

#include <optional>

namespace jg {

/// A measure's own formula on the joints at their moments, seen square, level and from far away from `view`.
/// The slope of a lifted thigh is that in space; a turn is the angle whose width it is. Nothing where the
/// body does not know a moment.
std::optional<double> truthOf(const MeasureDefinition& measure, const MadeBody& body, View view,
                              double captureFps);

/// The angle or length in space of a measure that has one there: between two lines, or a distance. Nothing
/// for the others. Pure.
std::optional<double> inSpaceOf(const MeasureDefinition& measure, const MadeBody& body, double captureFps);

} // namespace jg
