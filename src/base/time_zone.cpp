#include "base/time_zone.h"

#include <cstdio>
#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <optional>

namespace jg {

namespace {

/// What the environment said at the start.
const std::optional<std::string>& machinesOwn() {
    static const std::optional<std::string> own =
        std::getenv("TZ") ? std::optional<std::string>(std::getenv("TZ")) : std::nullopt;
    return own;
}

bool isKnown(const std::string& zone) {
    constexpr const char* kLetters = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_+-/";
    if (zone.find_first_not_of(kLetters) != std::string::npos || zone.front() == '/') return false;
    std::error_code ec;
    return std::filesystem::is_regular_file("/usr/share/zoneinfo/" + zone, ec);
}

} // namespace

Status useTimeZone(const std::string& zone) {
    const auto& own = machinesOwn();
    if (zone.empty()) {
        own ? ::setenv("TZ", own->c_str(), 1) : ::unsetenv("TZ");
    } else {
        if (!isKnown(zone)) return fail(ErrorCode::BadInput, msg("time-zone.unknown", {{"zone", zone}}));
        ::setenv("TZ", zone.c_str(), 1);
    }
    ::tzset();
    return Done{};
}

std::string timeZoneNow() {
    const std::time_t now = std::time(nullptr);
    std::tm local{};
    ::localtime_r(&now, &local);
    const long minutes = local.tm_gmtoff / 60;
    char text[64];
    std::snprintf(text, sizeof text, "%s, UTC%c%02ld:%02ld", local.tm_zone, minutes < 0 ? '-' : '+',
                  std::labs(minutes) / 60, std::labs(minutes) % 60);
    return text;
}

} // namespace jg
