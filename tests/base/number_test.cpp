// SPDX-License-Identifier: GPL-3.0-or-later
// Numbers become text and text becomes numbers the same way under every locale.
#include "base/number.h"

#include <gtest/gtest.h>

#include <clocale>
#include <cstdio>

namespace jg {
namespace {

TEST(Number, IsWrittenWithAPoint) {
    EXPECT_EQ(fixed(1.25, 1), "1.2"); // to even, as the C library rounds
    EXPECT_EQ(fixed(-0.5, 2), "-0.50");
    EXPECT_EQ(fixed(1234567.891, 1), "1234567.9");
    EXPECT_EQ(significant(0.85, 4), "0.85");
    EXPECT_EQ(significant(120, 6), "120");
}

TEST(Number, IsReadWholeOrNotAtAll) {
    EXPECT_EQ(parseNumber(" 2.5 "), 2.5);
    EXPECT_EQ(parseNumber("-1e3"), -1000);
    for (const char* wrong : {"", "2,5", "2.5x", "x", "inf", "nan", "1 2", "0x10", "--1"})
        EXPECT_FALSE(parseNumber(wrong)) << wrong;
}

TEST(Number, MayStandBeforeOtherWords) {
    EXPECT_EQ(leadingNumber("120p"), 120);
    EXPECT_EQ(leadingNumber(" 59.94 fps"), 59.94);
    EXPECT_FALSE(leadingNumber("p120"));
}

TEST(Number, AsAPersonTypesItACommaIsADecimalPoint) {
    EXPECT_EQ(typedNumber("2,5"), 2.5);
    EXPECT_EQ(typedNumber("2.5"), 2.5);
    EXPECT_FALSE(typedNumber("1,234.5")); // may mean two things
    EXPECT_FALSE(typedNumber("1.234,5"));
    EXPECT_FALSE(typedNumber("1,2,3"));
}

TEST(Number, ALibraryCalledBetweenSeesAPointWhateverTheLocale) {
    char text[32];
    {
        const PlainNumbers plain;
        std::snprintf(text, sizeof text, "%.2f", 0.85);
    }
    EXPECT_STREQ(text, "0.85");
    const std::string before = std::setlocale(LC_NUMERIC, nullptr);
    { const PlainNumbers plain; }
    EXPECT_EQ(before, std::setlocale(LC_NUMERIC, nullptr));
}

} // namespace
} // namespace jg
