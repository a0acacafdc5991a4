// SPDX-License-Identifier: GPL-3.0-or-later
// Spanish holds together with English: the same gaps, and sentences of the playbook that are still in it.
#include "words/words.h"

#include <gtest/gtest.h>

namespace jg {
namespace {

TEST(Spanish, EveryPatternCanBeReadAndAsksForWhatEnglishAsks) {
    EXPECT_TRUE(spanish().problems().empty()) << spanish().problems().front();
    ASSERT_GT(spanish().catalogue().size(), 250U);
    for (const auto& [id, pattern] : spanish().catalogue()) {
        const auto known = english().catalogue().find(id);
        ASSERT_NE(known, english().catalogue().end()) << id;
        for (const std::string& argument : argumentsOf(pattern)) {
            const auto asked = argumentsOf(known->second);
            EXPECT_NE(std::find(asked.begin(), asked.end(), argument), asked.end()) << id << " " << argument;
        }
    }
}

TEST(Spanish, SaysSentencesOfThePlaybookWholeAndWithoutTheirParts) {
    const std::string whole = "Your front knee lands at {value} (give or take {error}). We want {target}.";
    const auto said = [&](const std::string& sentence) {
        return spanish()(filled(sentence, {{"value", "140°"}, {"error", "6"}, {"target", "135 a 172"}}));
    };
    EXPECT_EQ(said(whole), "Tu rodilla de adelante apoya a 140° (con un margen de 6). Queremos 135 a 172.");
    EXPECT_EQ(said(without(whole, "target")), "Tu rodilla de adelante apoya a 140° (con un margen de 6).");
    EXPECT_EQ(said(without(whole, "error")), "Tu rodilla de adelante apoya a 140°. Queremos 135 a 172.");
    EXPECT_EQ(said(without(without(whole, "error"), "target")), "Tu rodilla de adelante apoya a 140°.");
}

TEST(Spanish, NamesOfThePlaybookAreSaidAndOtherTextStays) {
    EXPECT_EQ(spanish()(msg("letter.keep", {{"what", "Chair sit on the back leg"}})),
              "Sentarse en la silla con la pierna de atrás.");
    EXPECT_EQ(spanish()(asIs("What I wrote myself.")), "What I wrote myself.");
    EXPECT_EQ(spanish()(asIs(Decimal{1.5, 1})), "1.5");
    EXPECT_EQ(spanish()(msg("desk-place.queue")), english()(msg("desk-place.queue"))); // no reader's word
}

TEST(Spanish, IsChosenByItsTag) {
    EXPECT_EQ(wordsOf("es").tag(), "es");
    EXPECT_EQ(wordsOf("en").tag(), english().tag());
    EXPECT_EQ(wordsOf("xx").tag(), english().tag());
}

TEST(Without, LeavesOutTheParenthesesElseTheSentence) {
    EXPECT_EQ(without("It is {a} (or {b}). We want {c}.", "b"), "It is {a}. We want {c}.");
    EXPECT_EQ(without("It is {a} (or {b}). We want {c}.", "c"), "It is {a} (or {b}).");
    EXPECT_EQ(without("It is {a}.", "a"), "It is {a}.");
    EXPECT_EQ(without("It is (so) {a}. We (all) want {c}.", "c"), "It is (so) {a}.");
    EXPECT_EQ(without("Nothing.", "a"), "Nothing.");
}

} // namespace
} // namespace jg
