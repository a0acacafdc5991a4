// The house's time zone: days and hours are told by it.
#pragma once

#include "base/result.h"

#include <string>

namespace jg {

/// From now on this process tells local time by a zone such as "Europe/Berlin"; by the machine's own when it
/// is empty. Errors: BadInput for a zone that this machine does not know; then nothing changes. Call it
/// before other threads read the time, or from the one that does.
Status useTimeZone(const std::string& zone);

/// The name of the zone in use, and how far it lies from UTC: "CET, UTC+01:00".
std::string timeZoneNow();

} // namespace jg
