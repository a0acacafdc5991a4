// SPDX-License-Identifier: GPL-3.0-or-later
// What was allowed, at every edge.
#include "review/record/allowed.h"
#include "review/record/consent.h"
#include "review/record/review_json.h"
#include "review/tell/send_check.h"
#include "tests/review/made_review.h"

namespace jg {
namespace {

using test::athlete;
using test::today;

TEST(Consent, HoldsToItsLastDayAndNotOnTheDayItIsTakenBack) {
    Athlete a = athlete();
    EXPECT_EQ(allowedOn(a, Use::Filming, today()), Allowed::Yes);
    EXPECT_EQ(allowedOn(a, Use::Model, today()), Allowed::No);
    a.consent->until = today();
    EXPECT_EQ(allowedOn(a, Use::Filming, today()), Allowed::Yes);
    EXPECT_EQ(allowedOn(a, Use::Filming, addDays(today(), 1)), Allowed::Ended);
    a.consent->takenBack = addDays(today(), 1);
    EXPECT_EQ(allowedOn(a, Use::Filming, today()), Allowed::Yes);
    EXPECT_EQ(allowedOn(a, Use::Filming, addDays(today(), 1)), Allowed::TakenBack);
    a.consent.reset();
    EXPECT_EQ(allowedOn(a, Use::Showing, today()), Allowed::Silent);
}

TEST(Consent, OfAGuardianEndsOnTheEighteenthBirthday) {
    Athlete a = athlete();
    const Date birthday = Date{a.born.year() + std::chrono::years{18}, a.born.month(), a.born.day()};
    EXPECT_EQ(allowedOn(a, Use::Filming, addDays(birthday, -1)), Allowed::Yes);
    EXPECT_EQ(allowedOn(a, Use::Filming, birthday), Allowed::GrownUp);
    EXPECT_NE(said(whyNotAllowed(a, Use::Filming, birthday)).find("of age now"), std::string::npos);
    a.consent->byGuardian = false;
    EXPECT_EQ(allowedOn(a, Use::Filming, birthday), Allowed::Yes);
}

TEST(Consent, SaysWhatItIsAndWhy) {
    Athlete a = athlete();
    EXPECT_EQ(said(consentInWords(a, today())), "filming and showing to others, by Parent of Ludo");
    a.consent->until = Date{std::chrono::year{2027} / 5 / 3};
    EXPECT_EQ(said(consentInWords(a, today())),
              "filming and showing to others, by Parent of Ludo, until 3 May 2027");
    a.consent->takenBack = Date{std::chrono::year{2026} / 11 / 1};
    EXPECT_EQ(said(consentInWords(a, today())),
              "filming and showing to others, by Parent of Ludo: it was taken back on 1 November 2026");
    a.consent.reset();
    EXPECT_TRUE(consentInWords(a, today()).empty());
}

TEST(Consent, IsKeptWithTheAthlete) {
    Athlete a = athlete();
    a.consent->until = addDays(today(), 30);
    a.consent->takenBack = addDays(today(), 3);
    a.language = Language::Spanish;
    const auto read = athleteFromJson(toJson(a));
    ASSERT_TRUE(read) << said(read.error().text);
    EXPECT_EQ(*read, a);
}

TEST(Consent, SilenceIsAThoughtAndAnEndStopsTheLetter) {
    const auto problemsWith = [](const Athlete& a) {
        return checkBeforeSending(test::review(), test::playbook(), {}, a, test::submission(), today());
    };
    const auto about = [](const std::vector<SendProblem>& problems) -> const SendProblem* {
        for (const SendProblem& p : problems)
            if (p.text.id.starts_with("consent.")) return &p;
        return nullptr;
    };
    Athlete a = athlete();
    EXPECT_EQ(about(problemsWith(a)), nullptr);
    a.consent->filming = false;
    const auto no = problemsWith(a);
    ASSERT_NE(about(no), nullptr);
    EXPECT_TRUE(about(no)->stop);
    a.consent.reset();
    const auto silent = problemsWith(a);
    ASSERT_NE(about(silent), nullptr);
    EXPECT_FALSE(about(silent)->stop);
}

// A child may say yes to a camera; it is their guardian who gives it.
TEST(Consent, AChildsOwnCountsForNothing) {
    Athlete a = athlete();
    a.consent->byGuardian = false;
    for (const Use use : {Use::Filming, Use::Showing})
        EXPECT_EQ(allowedOn(a, use, today()), Allowed::OwnWord);
    EXPECT_NE(said(whyNotAllowed(a, Use::Filming, today())).find("a guardian's to give"), std::string::npos);
    EXPECT_FALSE(said(consentInWords(a, today())).empty());
}

} // namespace
} // namespace jg
