// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/time_zone.h"

#include <algorithm>
#include <atomic>
#include <cstdio>
#include <cstdlib>
#include <ctime>

namespace jg {

using namespace std::chrono;

namespace {

std::tm machineTime(std::int64_t unix) {
    const auto at = static_cast<std::time_t>(unix);
    std::tm local{};
    ::localtime_r(&at, &local);
    return local;
}

class MachinesOwn final : public TimeZone {
public:
    int offsetAt(std::int64_t unix) const override { return static_cast<int>(machineTime(unix).tm_gmtoff); }
    std::string shortNameAt(std::int64_t unix) const override {
        const char* name = machineTime(unix).tm_zone;
        return name ? name : "";
    }
};

std::atomic<std::shared_ptr<const TimeZone>>& inUse() {
    static std::atomic<std::shared_ptr<const TimeZone>> zone{std::make_shared<const MachinesOwn>()};
    return zone;
}

} // namespace

void useTimeZone(std::shared_ptr<const TimeZone> zone) {
    inUse().store(zone ? std::move(zone) : std::make_shared<const MachinesOwn>());
}

CivilTime civilAt(std::int64_t unix) {
    const sys_seconds local{seconds(unix + inUse().load()->offsetAt(unix))};
    const auto day = floor<days>(local);
    const auto minutes = duration_cast<std::chrono::minutes>(local - day).count();
    return {Date(day), static_cast<int>(minutes / 60), static_cast<int>(minutes % 60)};
}

std::int64_t unixAt(const CivilTime& local) {
    constexpr std::int64_t kDayS = 86400;
    const auto zone = inUse().load();
    const std::int64_t asUtc = duration_cast<seconds>(sys_days{local.date}.time_since_epoch()).count() +
                               local.hour * 3600 + local.minute * 60;
    // The offsets of a day before and after: between them it changes at most once.
    const int before = zone->offsetAt(asUtc - kDayS), after = zone->offsetAt(asUtc + kDayS);
    for (const int offset : {std::max(before, after), std::min(before, after)})
        if (zone->offsetAt(asUtc - offset) == offset) return asUtc - offset;
    return asUtc - before; // in the gap
}

std::string clockWords(const CivilTime& local) {
    char text[32];
    std::snprintf(text, sizeof text, "%02d:%02d", local.hour, local.minute);
    return text;
}

std::string timeZoneNow() {
    const auto zone = inUse().load();
    const std::int64_t now = std::time(nullptr);
    const int minutes = zone->offsetAt(now) / 60;
    char text[32];
    std::snprintf(text, sizeof text, "UTC%c%02d:%02d", minutes < 0 ? '-' : '+', std::abs(minutes) / 60,
                  std::abs(minutes) % 60);
    return zone->shortNameAt(now) + ", " + text;
}

} // namespace jg
