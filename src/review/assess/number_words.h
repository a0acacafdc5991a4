// SPDX-License-Identifier: GPL-3.0-or-later
// Numbers with their errors in words and on pictures.
#pragma once

#include "base/message.h"
#include "kinematics/measure_value.h"

#include <string>

namespace jg {

/// Number with unit for a reader, rounded, with a minus that is no hyphen. Unit deg | % | ms | s | in | x.
Message numberInWords(double value, const std::string& unit);
/// Half the 95 % interval as shown beside the number, never less than its last digit.
Message errorInWords(const MeasureValue& value);
Message errorInWords(double half95, const std::string& unit);

/// "88 +-4" with the unit's sign, as written on pictures; empty without a number.
Message labelOf(const MeasureValue& value);

} // namespace jg
