// SPDX-License-Identifier: GPL-3.0-or-later
// Numbers as a reader is told them: time in seconds and in words, a share of the height as a length.
#pragma once

#include "review/assess/assess.h"
#include "review/record/audience.h"

namespace jg {

/// Milliseconds become seconds, target and error with them; all else stays. Pure.
MeasureValue asTold(MeasureValue value);
Target asTold(Target target);
MeasureRow asTold(MeasureRow row);

/// "about a third of a second", of the nearest plain fraction; no sign. Pure.
Message durationInWords(double seconds);

/// How long a share of the body's height is: "On you that is about 54 inches (137 cm)." Empty for what is no
/// such share, or while the height is not known. Pure.
Message lengthOnBody(const MeasureDefinition& measure, const MeasureValue& value, double heightM);

} // namespace jg
