// The house's time zone tells days and hours.
#include "base/time_zone.h"

#include "base/date.h"
#include "tests/support/fixtures.h"

#include <cstdlib>

namespace jg {
namespace {

TEST(TimeZone, HoursAreToldByTheHouse) {
    const SystemClock clock;
    ASSERT_TRUE(useTimeZone("Etc/GMT-14"));
    const Date east = clock.today();
    EXPECT_NE(timeZoneNow().find("UTC+14:00"), std::string::npos) << timeZoneNow();
    ASSERT_TRUE(useTimeZone("Etc/GMT+12"));
    const Date west = clock.today();
    EXPECT_NE(timeZoneNow().find("UTC-12:00"), std::string::npos) << timeZoneNow();
    EXPECT_GE(daysBetween(west, east), 1); // 26 hours apart
    ASSERT_TRUE(useTimeZone(""));
}

TEST(TimeZone, WhatThisMachineDoesNotKnowIsRefused) {
    ASSERT_TRUE(useTimeZone("Etc/GMT-14"));
    for (const char* wrong :
         {"Mars/Olympus", "../../etc/passwd", "/etc/localtime", "Europe", "a b", "Europe/Berlin\n"}) {
        const Status used = useTimeZone(wrong);
        ASSERT_FALSE(used) << wrong;
        EXPECT_NE(timeZoneNow().find("UTC+14:00"), std::string::npos) << wrong;
    }
    ASSERT_TRUE(useTimeZone(""));
}

} // namespace
} // namespace jg
