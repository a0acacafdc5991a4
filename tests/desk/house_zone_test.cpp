// SPDX-License-Identifier: GPL-3.0-or-later
// The house's time zone tells days and hours.
#include "desk/keeping/house_zone.h"

#include "base/clock.h"
#include "base/date.h"
#include "base/time_zone.h"
#include "tests/support/fixtures.h"

#include <cstdlib>
#include <thread>

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

// The environment of a running program is read by other threads: it stays as it is, and they are told the
// same time.
TEST(TimeZone, ARunningWindowsEnvironmentIsNotTouched) {
    const char* before = std::getenv("TZ");
    ASSERT_TRUE(useTimeZone("Europe/Berlin"));
    EXPECT_EQ(std::getenv("TZ"), before);
    CivilTime told;
    std::jthread([&] { told = civilAt(1796066100); }).join();
    EXPECT_EQ(told,
              (CivilTime{*parseIsoDate("2026-11-30"), 20, 15})); // `TZ=Europe/Berlin date -d @1796066100`
    ASSERT_TRUE(useTimeZone(""));
}

// In Berlin 02:00 to 03:00 is left out on 29 March 2026 and comes twice on 25 October; moments by GNU date.
TEST(TimeZone, AnHourThatIsLeftOutOrComesTwiceHasOneMoment) {
    ASSERT_TRUE(useTimeZone("Europe/Berlin"));
    const auto on = [](const char* day, int hour, int minute) {
        return unixAt({*parseIsoDate(day), hour, minute});
    };
    EXPECT_EQ(on("2026-03-29", 1, 59), 1774745940);
    EXPECT_EQ(on("2026-03-29", 3, 0), 1774746000);
    EXPECT_EQ(on("2026-03-29", 2, 30), 1774747800); // as far after the gap
    EXPECT_EQ(on("2026-10-25", 2, 30), 1792888200); // the first of the two
    EXPECT_EQ(on("2026-10-25", 3, 0), 1792893600);
    for (std::int64_t t = 1774700000; t < 1774800000; t += 60) EXPECT_EQ(unixAt(civilAt(t)), t - t % 60);
    ASSERT_TRUE(useTimeZone(""));
}

} // namespace
} // namespace jg
