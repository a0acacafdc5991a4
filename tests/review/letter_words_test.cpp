// SPDX-License-Identifier: GPL-3.0-or-later
// A number on the other side of zero is told in words of its own, never with a bare sign.
#include "review/tell/letter_model.h"
#include "review/tell/stops.h"
#include "tests/review/made_review.h"

#include <algorithm>

namespace jg {
namespace {

/// What the letter says of the back foot, off at frame `off`; release is frame 180.
std::string toldOf(std::int64_t off, std::optional<Target> target = std::nullopt) {
    Review r = test::review();
    r.first().moments[Moment::Release] = {180, ""};
    r.first().moments[Moment::BackToeOff] = {off, ""};
    Approach a;
    Target t =
        target.value_or(Target{"back-foot-off", Moment::Release, TargetType::AtMost, -100, 0, 1, {}, "ms"});
    a.targets = {t};
    r.judging().approach = a;
    r.plan.corrections = {"back-foot-off"};
    const Assessment assessed = assess(r, test::playbook(), test::clip(), Hand::Right);
    const LetterModel letter =
        writeLetter(r, test::playbook(), assessed, test::athlete(), test::submission(), {});
    EXPECT_EQ(letter.corrections.size(), 1U);
    return letter.corrections.empty() ? "" : said(letter.corrections[0].number);
}

TEST(LetterWords, ANumberBelowZeroNamesItsOwnSide) {
    const std::string before = toldOf(168), after = toldOf(186);
    EXPECT_NE(before.find("leaves the ground about a tenth of a second (0.10 s) before the ball"),
              std::string::npos)
        << before;
    EXPECT_NE(after.find("leaves the ground about a twentieth of a second (0.05 s) after the ball"),
              std::string::npos)
        << after;
    EXPECT_EQ(after.find("\u2212"), after.rfind("\u2212")) << after; // at most in the target
}

TEST(LetterWords, NothingIsWantedOfANumberThatIsOnlyRecorded) {
    Target record{"back-foot-off", Moment::Release, TargetType::Record, 0, 0, 0, {}, "ms"};
    const std::string told = toldOf(168, record);
    EXPECT_NE(told.find("about a tenth of a second (0.10 s) before"), std::string::npos) << told;
    EXPECT_EQ(told.find("we want"), std::string::npos) << told;
    EXPECT_EQ(told.find("We want"), std::string::npos) << told;
}

TEST(LetterWords, AMeasureIsFeltByItsSide) {
    Review r = test::review();
    Approach a;
    a.targets = {Target{"back-foot-off", Moment::Release, TargetType::AtMost, -100, 0, 1, {}, "ms"}};
    r.judging().approach = a;
    r.first().moments[Moment::Release] = {180, ""};
    r.first().moments[Moment::BackToeOff] = {168, ""};
    r.plan.corrections = {"back-foot-off"};
    const Playbook& p = test::playbook();
    for (const int age : {10, 15}) {
        const LetterModel letter = writeLetter(r, p, assess(r, p, test::clip(), Hand::Right),
                                               test::athlete(age), test::submission(), {});
        ASSERT_EQ(letter.corrections.size(), 1U);
        EXPECT_EQ(said(letter.corrections[0].feel), p.measure("back-foot-off")->feelDown) << age;
    }
}

TEST(LetterWords, WhatIsKeptSaysThatItIsWhereItIsWanted) {
    Review r = test::review();
    Approach a;
    a.targets = {Target{"back-foot-off", Moment::Release, TargetType::AtLeast, 10, 0, 1, {}, "ms"}};
    r.judging().approach = a;
    r.first().moments[Moment::Release] = {180, ""};
    r.first().moments[Moment::BackToeOff] = {168, ""};
    const Playbook& p = test::playbook();
    const Assessment assessed = assess(r, p, test::clip(), Hand::Right);
    r.stops = {*stopFor(r, p, assessed, "back-foot-off", {"s"})};
    const LetterModel letter = writeLetter(r, p, assessed, test::athlete(), test::submission(), {});
    ASSERT_EQ(letter.keeps.size(), 1U);
    const std::string kept = said(letter.keeps[0]);
    EXPECT_EQ(kept.find("Your back foot leaves the ground about a tenth of a second (0.10 s) before the ball "
                        "(give or take"),
              0U)
        << kept;
    EXPECT_EQ(kept.find("We want"), std::string::npos) << kept; // that asks for a change
    EXPECT_NE(kept.find("That is where we want it: at least 0.01"), std::string::npos) << kept;
}

TEST(LetterWords, EveryOtherSideIsWordedWhole) {
    for (const MeasureDefinition& m : test::playbook().measures) {
        if (m.plainlyOther.empty()) continue;
        EXPECT_NE(m.plainlyOther.find("{value}"), std::string::npos) << m.id;
        EXPECT_NE(m.plainlyOther.find("{error}"), std::string::npos) << m.id;
        EXPECT_EQ(m.plainly.find("{target}") == m.plainly.npos,
                  m.plainlyOther.find("{target}") == m.plainly.npos)
            << m.id;
    }
}

} // namespace
} // namespace jg
