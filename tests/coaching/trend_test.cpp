// SPDX-License-Identifier: GPL-3.0-or-later
// What a change means for what is wanted.
#include "coaching/change.h"
#include "tests/support/core.h"

#include <gtest/gtest.h>

namespace jg {
namespace {

Target wanted(TargetType type, double x, double y = 0) {
    Target t;
    t.type = type;
    t.x = x;
    t.y = y;
    return t;
}

TEST(Trend, ADifferenceInsideTheErrorIsNone) {
    // 1.96 x sqrt(2^2 + 2^2) = 5.54 (Weir 2005, from memory).
    EXPECT_EQ(trendOf(wanted(TargetType::AtLeast, 106), 90, 2, 95.5, 2), Trend::InsideError);
    EXPECT_EQ(trendOf(wanted(TargetType::AtLeast, 106), 90, 2, 95.6, 2), Trend::Better);
}

TEST(Trend, BetterIsNearerToWhatIsWantedOnEitherSide) {
    EXPECT_EQ(trendOf(wanted(TargetType::AtLeast, 106), 100, 1, 90, 1), Trend::Worse);
    EXPECT_EQ(trendOf(wanted(TargetType::AtMost, 110), 130, 1, 115, 1), Trend::Better);
    EXPECT_EQ(trendOf(wanted(TargetType::AtMost, 110), 115, 1, 130, 1), Trend::Worse);
    EXPECT_EQ(trendOf(wanted(TargetType::Band, 30, 40), 60, 1, 45, 1), Trend::Better);
    EXPECT_EQ(trendOf(wanted(TargetType::Band, 30, 40), 25, 1, 10, 1), Trend::Worse);
    EXPECT_EQ(trendOf(wanted(TargetType::Band, 30, 40), 20, 1, 50, 1),
              Trend::Changed); // as far on the other side
}

TEST(Trend, WithoutATargetOrInsideItAChangeIsNeitherGoodNorBad) {
    EXPECT_EQ(trendOf(wanted(TargetType::Record, 0), 20, 1, 40, 1), Trend::Changed);
    EXPECT_EQ(trendOf(wanted(TargetType::AtLeast, 106), 110, 1, 120, 1), Trend::Changed);
    EXPECT_EQ(nameOf(Trend::Worse), "worse");
}

} // namespace
} // namespace jg
