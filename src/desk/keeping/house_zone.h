// SPDX-License-Identifier: GPL-3.0-or-later
// The time zone that a house gave itself.
#pragma once

#include "base/result.h"

#include <string>

namespace jg {

/// Whether this machine knows a zone such as "Europe/Berlin"; an empty one is the machine's own. Errors:
/// BadInput.
Status knowTimeZone(const std::string& zone);

/// From now on this process tells local time by it. Any thread. Errors: as knowTimeZone(); then nothing
/// changes.
Status useTimeZone(const std::string& zone);

} // namespace jg
