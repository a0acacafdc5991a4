// SPDX-License-Identifier: GPL-3.0-or-later
// The house's time zone: days and hours are told by it.
#pragma once

#include "base/date.h"

#include <cstdint>
#include <memory>
#include <string>

namespace jg {

/// The rules of a zone. Values that any thread may ask at once.
class TimeZone {
public:
    virtual ~TimeZone() = default;
    /// How far local time lies from UTC at a moment, seconds.
    virtual int offsetAt(std::int64_t unix) const = 0;
    /// "CET".
    virtual std::string shortNameAt(std::int64_t unix) const = 0;
};

/// From now on this process tells local time by these rules; by the machine's own when there are none. Any
/// thread: the environment stays as it is, for other threads read it.
void useTimeZone(std::shared_ptr<const TimeZone> zone);

/// A day and a time of it, in local time.
struct CivilTime {
    Date date{};
    int hour = 0, minute = 0;
    bool operator==(const CivilTime&) const = default;
};

/// Any thread.
CivilTime civilAt(std::int64_t unix);
/// The moment of a local time; of one that comes twice the first, of one that is left out the one as far
/// after the gap.
std::int64_t unixAt(const CivilTime& local);
/// "07:05".
std::string clockWords(const CivilTime& local);

/// The name of the zone in use, and how far it lies from UTC: "CET, UTC+01:00".
std::string timeZoneNow();

} // namespace jg
