// SPDX-License-Identifier: GPL-3.0-or-later
// A number with its unit, as a message.
#pragma once

#include "base/message.h"

#include <string>

namespace jg {

/// "131\u00b0", "12 %", "83 ms"; a unit that the catalogue does not know stands as it is. An empty one is
/// nothing.
Message withUnit(Decimal number, const std::string& unit);

} // namespace jg
