// SPDX-License-Identifier: GPL-3.0-or-later
// Two people edit one athlete: each field for itself.
#include "review/record/athlete_edit.h"

#include "tests/support/core.h"

namespace jg {
namespace {

Athlete wren() {
    Athlete a;
    a.id = {"ath-1"};
    a.firstName = "Wren";
    a.lastName = "Castellane";
    a.born = *parseIsoDate("2013-03-09");
    a.guardianEmail = "ruth@example.org";
    a.consent = Consent{true, true, false, "Ruth", true, test::today(), {}, {}};
    return a;
}

TEST(AthleteEdit, AnotherWindowsChangeOfAnotherFieldStays) {
    const Athlete shown = wren();
    Athlete typed = shown, now = shown;
    typed.level = "14U";
    now.consent->takenBack = test::today(); // by the other window, meanwhile
    now.guardianEmail = "both@example.org";
    ASSERT_TRUE(applyEdit({shown, typed}, now));
    EXPECT_EQ(now.level, "14U");
    EXPECT_EQ(now.consent->takenBack, test::today()) << "a consent that was taken back came back";
    EXPECT_EQ(now.guardianEmail, "both@example.org");
}

TEST(AthleteEdit, TheSameFieldTwiceIsToldWithBothAndStandsOnlyOnPurpose) {
    const Athlete shown = wren();
    Athlete typed = shown, now = shown;
    typed.guardianEmail = "mine@example.org";
    typed.level = "14U";
    now.guardianEmail = "theirs@example.org";
    const Athlete before = now;
    const Status told = applyEdit({shown, typed}, now);
    ASSERT_FALSE(told);
    EXPECT_EQ(told.error().code, ErrorCode::Stale);
    for (const char* both : {"mine@example.org", "theirs@example.org", "Guardian's mail"})
        EXPECT_NE(said(told.error().text).find(both), std::string::npos) << said(told.error().text);
    EXPECT_EQ(now, before); // nothing half-written
    ASSERT_TRUE(applyEdit({shown, typed, true}, now));
    EXPECT_EQ(now.guardianEmail, "mine@example.org");
    EXPECT_EQ(now.level, "14U");
}

TEST(AthleteEdit, BothWroteTheSame) {
    const Athlete shown = wren();
    Athlete typed = shown, now = shown;
    typed.level = now.level = "14U";
    EXPECT_TRUE(applyEdit({shown, typed}, now));
    EXPECT_EQ(now.level, "14U");
}

TEST(AthleteEdit, OfListsTheEntriesThatCameAndWent) {
    Athlete shown = wren();
    const auto day = [](const char* iso) { return *parseIsoDate(iso); };
    shown.outings = {{day("2026-11-01"), 30, ""}, {day("2026-11-08"), 40, ""}};
    Athlete typed = shown, now = shown;
    typed.outings.push_back({day("2026-11-20"), 50, "fine"});
    typed.outings.erase(typed.outings.begin());
    now.outings.insert(now.outings.end(), {day("2026-11-15"), 45, "sore"}); // by the other window
    ASSERT_TRUE(applyEdit({shown, typed}, now));
    ASSERT_EQ(now.outings.size(), 3U);
    EXPECT_EQ(now.outings[0].pitches, 40);
    EXPECT_EQ(now.outings[1].pitches, 45); // by day
    EXPECT_EQ(now.outings[2].pitches, 50);
}

TEST(AthleteEdit, TheLastEntryOfAListAndAWholeFieldCanGo) {
    Athlete shown = wren();
    shown.outings = {{test::today(), 30, ""}};
    shown.comingBack = ComingBack{"the elbow", {}};
    Athlete typed = shown, now = shown;
    typed.outings.clear();
    typed.comingBack.reset();
    ASSERT_TRUE(applyEdit({shown, typed}, now));
    EXPECT_TRUE(now.outings.empty());
    EXPECT_FALSE(now.comingBack);
    EXPECT_EQ(now, typed);
}

} // namespace
} // namespace jg
