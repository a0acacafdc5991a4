// SPDX-License-Identifier: GPL-3.0-or-later
// What is typed of a person and of a pitch.
#include "review/record/people_check.h"

#include "review/record/conditions.h"
#include "review/record/pitch_count.h"
#include "review/record/review_json.h"
#include "tests/support/core.h"

namespace jg {
namespace {

TEST(PeopleCheck, ADayIsReadAsPeopleWriteItAndNeverGuessed) {
    const Date march = *parseIsoDate("2011-03-09");
    for (const char* words :
         {"2011-03-09", "9 March 2011", "March 9, 2011", "9 Mar 2011", " 9 march 2011 ", "9.3.2011"})
        EXPECT_EQ(dateFromWords(words), march) << words;
    for (const char* words :
         {"", "3/9/2011", "2011", "March 2011", "31 February 2011", "9 Marsh 2011", "09-03-2011"})
        EXPECT_FALSE(dateFromWords(words)) << words;
}

TEST(PeopleCheck, AnAddressIsOneAddress) {
    for (const char* good : {"a@example.org", "odalys.home+ball@mail.example.org"})
        EXPECT_TRUE(isOneAddress(good)) << good;
    for (const char* bad :
         {"", "a", "a@", "@example.org", "a@example.org, b@example.org", "a b@example.org",
          "a@example.org\nBcc: c@example.org", "A <a@example.org>", "a@@example.org", "a@example"})
        EXPECT_FALSE(isOneAddress(bad)) << bad;
}

Athlete minor() {
    Athlete a;
    a.firstName = "Ludo";
    a.born = *parseIsoDate("2011-03-09");
    a.email = "ludo@example.org";
    a.guardianEmail = "home@example.org";
    return a;
}

TEST(PeopleCheck, AnAthleteIsRefusedInWords) {
    EXPECT_TRUE(checkAthlete(minor(), test::today()));
    const auto why = [](Athlete a) {
        const Status s = checkAthlete(a, test::today());
        return s ? std::string() : said(s.error().text);
    };
    Athlete a = minor();
    a.born = *parseIsoDate("2025-01-01");
    EXPECT_NE(why(a).find("date of birth"), std::string::npos) << why(a);
    a = minor();
    a.guardianEmail = "LUDO@example.org";
    EXPECT_NE(why(a).find("guardian"), std::string::npos) << why(a); // a child is no guardian of themselves
    a.born = *parseIsoDate("2000-03-09");
    EXPECT_EQ(why(a), "");
    a = minor();
    a.email = "a@example.org,b@example.org";
    EXPECT_NE(why(a), "");
    a = minor();
    a.guardianEmail.clear();
    EXPECT_EQ(why(a), ""); // may be kept; no letter goes out
}

TEST(PitchCount, IsReadFromWhatIsTypedAndKeptByItsDay) {
    const Date today = *parseIsoDate("2026-11-25");
    Athlete a = minor();
    for (const auto& [day, count] :
         {std::pair{"2026-11-21", "54"}, {"9 Nov 2026", "31"}, {"2026-11-25", "12"}}) {
        auto outing = pitchCountFromWords(day, count, "fine", today);
        ASSERT_TRUE(outing) << day;
        addOuting(a, *outing);
    }
    ASSERT_EQ(a.outings.size(), 3U);
    EXPECT_EQ(a.outings[0].pitches, 31);
    EXPECT_EQ(a.outings[2].pitches, 12);
    for (const auto& [day, count] : {std::pair{"2026-11-26", "54"},
                                     {"", "54"},
                                     {"2026-11-21", "0"},
                                     {"2026-11-21", "54,5"},
                                     {"2026-11-21", "-3"},
                                     {"2026-11-21", "251"}})
        EXPECT_FALSE(pitchCountFromWords(day, count, "", today)) << day << " " << count;
    const auto read = athleteFromJson(toJson(a));
    ASSERT_TRUE(read);
    EXPECT_EQ(read->outings, a.outings);
}

// Pitch Smart's table as throwing_guidance_test has it: at 15, 76 to 95 pitches ask for four days.
TEST(PitchCount, TellsTheRestThatGuidanceAsksForWhileItLasts) {
    const Date on = *parseIsoDate("2026-11-21");
    const PitchCount many{on, 80, ""};
    const std::string words = said(restInWords(many, 15, addDays(on, 1)));
    EXPECT_NE(words.find("4 days"), std::string::npos) << words;
    EXPECT_NE(words.find("25 November"), std::string::npos) << words;
    EXPECT_NE(words.find("league"), std::string::npos) << words;
    EXPECT_TRUE(restInWords(many, 15, addDays(on, 5)).empty());
    EXPECT_TRUE(restInWords({on, 10, ""}, 15, on).empty());
    EXPECT_NE(said(restInWords({on, 120, ""}, 15, on)).find("95"), std::string::npos);
    EXPECT_TRUE(restInWords(many, 40, on).empty()); // none is known
}

TEST(Conditions, ASpeedHasItsUnit) {
    EXPECT_NEAR(*speedFromWords("84 mph"), 37.55, 0.01); // 0.44704 m/s to a mile an hour, exact by definition
    EXPECT_NEAR(*speedFromWords("135,5 km/h"), 37.64, 0.01);
    EXPECT_NEAR(*speedFromWords("37.5 m/s"), 37.5, 1e-9);
    for (const char* wrong : {"", "84", "mph", "-3 mph", "900 mph", "fast"})
        EXPECT_FALSE(speedFromWords(wrong)) << wrong;
    EXPECT_EQ(speedInWords(*speedFromWords("84.3 mph")), "84.3 mph");
}

TEST(Conditions, AreAlikeWhereBothAreKnown) {
    Conditions a, b;
    EXPECT_TRUE(alike(a, b));
    a.surface = Surface::Mound;
    EXPECT_TRUE(alike(a, b));
    b.surface = Surface::FlatGround;
    EXPECT_FALSE(alike(a, b));
    b.surface = Surface::Mound;
    b.pitch = PitchType::Curveball;
    a.pitch = PitchType::Fastball;
    EXPECT_FALSE(alike(a, b));
}

} // namespace
} // namespace jg
