// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/clock.h"

#include "base/time_zone.h"

#include <ctime>

namespace jg {

using namespace std::chrono;

std::int64_t SystemClock::nowUnix() const {
    return std::time(nullptr);
}

Date SystemClock::today() const {
    return civilAt(nowUnix()).date;
}

std::string SystemClock::timeOfDay() const {
    return clockWords(civilAt(nowUnix()));
}

std::int64_t FixedClock::nowUnix() const {
    return duration_cast<seconds>(sys_days{date_}.time_since_epoch()).count() + 12 * 3600;
}

} // namespace jg
