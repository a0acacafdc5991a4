// SPDX-License-Identifier: GPL-3.0-or-later
// Messages become text by a catalogue and a language that are values.
#include "words/words.h"

#include <gtest/gtest.h>

#include <atomic>
#include <thread>

namespace jg {
namespace {

Words german() {
    return {"de",
            {{"gap", "{count, plural, one {# Lücke} other {# Lücken}}"},
             {"number", "{value} Grad"},
             {"due", "bis {date}"},
             {"from", "von {who}"}}};
}

TEST(Words, ChoosePluralsByTheNumber) {
    const Words words("en-GB", {{"gap", "{count, plural, one {# gap} other {# gaps}}"}});
    EXPECT_EQ(words(msg("gap", {{"count", 1}})), "1 gap");
    EXPECT_EQ(words(msg("gap", {{"count", 0}})), "0 gaps");
    EXPECT_EQ(words(msg("gap", {{"count", 25}})), "25 gaps");
}

TEST(Words, NumbersDatesAndListsAreTheReadersAndNotTheSystems) {
    const auto list = [](ListStyle style) { return joined(style, {asIs("a"), asIs("b"), asIs("c")}); };
    const Date date{std::chrono::year{2026} / 11 / 25};
    EXPECT_EQ(german()(number(-3.25, 1)), "\u22123,3");
    EXPECT_EQ(english()(number(-3.25, 1)), "\u22123.3");
    EXPECT_EQ(german()(day(date)), "25. November");
    EXPECT_EQ(english()(day(date)), "25 November");
    EXPECT_EQ(english()(day(date, DateStyle::Weekday)), "Wednesday");
    EXPECT_EQ(english()(day(date, DateStyle::WeekdayShort)), "Wed");
    EXPECT_EQ(german()(list(ListStyle::And)), "a, b und c");
    EXPECT_EQ(english()(list(ListStyle::And)), "a, b and c");
    EXPECT_EQ(english()(list(ListStyle::Or)), "a, b or c");
    EXPECT_EQ(english()(list(ListStyle::Commas)), "a, b, c");
    EXPECT_EQ(english()(list(ListStyle::Dots)), "a \u00b7 b \u00b7 c");
    EXPECT_EQ(english()(list(ListStyle::Sentences)), "a b c");
}

TEST(Words, NumbersKeepTheirDigits) {
    EXPECT_EQ(english()(number(12.5)), "13");      // half away from zero, as elsewhere in the program
    EXPECT_EQ(english()(number(-0.04, 1)), "0.0"); // what rounds to nothing has no sign
    EXPECT_EQ(english()(asIs(trimmed(0.85))), "0.85");
    EXPECT_EQ(english()(asIs(trimmed(-12))), "\u221212");
    // A frame is no amount: it is not grouped in thousands.
    const Words words("en-GB", {{"frame", "frame {frame}"}});
    EXPECT_EQ(words(msg("frame", {{"frame", 12345}})), "frame 12345");
}

TEST(Words, MessagesStandInMessages) {
    EXPECT_EQ(german()(msg("from", {{"who", msg("number", {{"value", Decimal{1.5, 1}}})}})), "von 1,5 Grad");
    EXPECT_EQ(english()(filled("It is {value} (give or take {error}), isn't it?",
                               {{"value", Decimal{3}}, {"error", "1"}})),
              "It is 3 (give or take 1), isn't it?");
}

TEST(Words, WhatIsMissingCanNotBeMissed) {
    EXPECT_EQ(german()(msg("nothing.like-it")), "\u2039nothing.like-it\u203a");
    EXPECT_EQ(Words("en-GB", {{"bad", "{unclosed"}})(msg("bad")), "\u2039bad\u203a");
    EXPECT_EQ(Words("en-GB", {{"bad", "{unclosed"}}).problems().size(), 1U);
}

TEST(Words, JoiningLeavesOutWhatIsEmpty) {
    EXPECT_TRUE(joined(ListStyle::Sentences, {Message{}, asIs("")}).empty());
    EXPECT_EQ(joined(ListStyle::Commas, {Message{}, asIs("one")}), asIs("one"));
    EXPECT_NE(msg("a", {{"x", 1}}), msg("a", {{"x", 2}}));
}

TEST(Words, TheEnglishCatalogueCanBeRead) {
    EXPECT_GT(english().catalogue().size(), 900U);
    EXPECT_EQ(english().problems(), std::vector<std::string>{});
}

TEST(Words, TheTestLanguageIsLongerAndAccentedThroughout) {
    EXPECT_EQ(accent("Keep it"), "\u0136\u00eb\u00eb\u00eb\u1e57 \u00ef\u0165\u0165");
    EXPECT_EQ(accent("<b>A</b>"), "<b>\u00c4</b>");
    std::size_t before = 0, after = 0;
    for (const auto& [id, pattern] : english().catalogue()) {
        const std::string& other = accented().catalogue().at(id);
        before += pattern.size();
        after += other.size();
        EXPECT_EQ(argumentsOf(other), argumentsOf(pattern)) << id;
    }
    EXPECT_GT(after, before * 4 / 3); // bytes: accents take two
    EXPECT_EQ(accented().problems(), std::vector<std::string>{});
    EXPECT_EQ(accented()(msg("unit.deg", {{"number", Decimal{3}}})), "3\u00b0");
}

TEST(Words, TwoLanguagesAreSpokenSideBySide) {
    const Words other = german();
    std::vector<std::jthread> threads;
    std::atomic<int> wrong = 0;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            const Words& words = t % 2 ? other : english();
            for (int i = 0; i < 500; ++i) wrong += words(number(1.5, 1)) != (t % 2 ? "1,5" : "1.5");
        });
    threads.clear();
    EXPECT_EQ(wrong, 0);
}

} // namespace
} // namespace jg
