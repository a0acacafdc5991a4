// SPDX-License-Identifier: GPL-3.0-or-later
// The week: gates that no plan breaks, drills for every need and age, guidance on throwing.
#include "coaching/claims.h"
#include "coaching/throwing_guidance.h"
#include "coaching/week.h"
#include "tests/support/core.h"

#include <random>
#include <set>

namespace jg {
namespace {

using test::playbook;

DrillGates randomGates(std::mt19937& random) {
    DrillGates g{static_cast<int>(8 + random() % 15), random() % 4 == 0, "", random() % 5 == 0, {}};
    constexpr const char* kSore[] = {"", "Elbow sore", "my knee hurts", "stiff back",
                                     "Shoulder, since Sunday"};
    if (g.pain) g.painWords = kSore[random() % 5];
    g.at.days = static_cast<unsigned>(1 + random() % 127);
    g.at.gameDays = random() % 3 ? 0U : static_cast<unsigned>(random() % 128);
    g.at.season = static_cast<Season>(random() % 4);
    g.at.throwing = random() % 6 != 0;
    for (const std::string& thing : thingsOf(playbook()))
        if (random() % 4 == 0) g.at.without.push_back(thing);
    return g;
}

const std::vector<std::string>& allFindings() {
    static const std::vector<std::string> ids = [] {
        std::vector<std::string> all;
        for (const GradedItem& i : playbook().items) all.push_back(i.id);
        for (const MeasureDefinition& m : playbook().measures) all.push_back(m.id);
        return all;
    }();
    return ids;
}

int daysBetweenOn(const std::vector<int>& days, std::size_t i) {
    return i + 1 < days.size() ? days[i + 1] - days[i] : days.front() + 7 - days[i];
}

void expectKept(const WeekPlan& week, const DrillGates& g, int round) {
    std::vector<int> throwing;
    int most = 0;
    for (const PlanDay& d : week.days) {
        ASSERT_TRUE(g.at.days >> d.weekday & 1U) << "round " << round << ": not a free day";
        ASSERT_FALSE(g.at.gameDays >> d.weekday & 1U) << "round " << round << ": a game day";
        if (d.throws > 0) throwing.push_back(d.weekday), most = std::max(most, d.throws);
        for (const std::string& id : d.drills) {
            const Drill& drill = *playbook().drill(id);
            ASSERT_EQ(drill.body, d.body) << "round " << round << ": both halves on one day";
            ASSERT_GE(g.age, drill.ageFrom) << id;
            ASSERT_FALSE(drill.throwing && (g.pain || g.returning || !g.at.throwing))
                << "round " << round << ": " << id;
            if (drill.ball) {
                ASSERT_FALSE(g.at.gameDays >> ((d.weekday + 1) % 7) & 1U) << "throws before a game";
            }
        }
    }
    ASSERT_LE(static_cast<int>(week.days.size()), 7 - restDaysAt(g.age));
    const auto guidance = throwingGuidance(g.age);
    for (std::size_t i = 0; i < throwing.size(); ++i)
        ASSERT_GT(daysBetweenOn(throwing, i), guidance->restAfter(most)) << "round " << round << ": no rest";
}

TEST(WeekGates, NoneIsBrokenForTenThousandRandomAthletes) {
    std::mt19937 random(19);
    int placed = 0, blocked = 0, thrown = 0;
    for (int round = 0; round < 10000; ++round) {
        const DrillGates g = randomGates(random);
        std::vector<PlannedDrill> drills;
        for (std::size_t n = random() % 7; n > 0; --n) {
            const Drill& d = playbook().drills[random() % playbook().drills.size()];
            drills.push_back({d.id,
                              "back-knee",
                              {static_cast<int>(1 + random() % 4), static_cast<int>(1 + random() % 25),
                               static_cast<int>(1 + random() % 4)},
                              false});
        }
        const WeekPlan week = layOutWeek(playbook(), drills, g);
        ASSERT_NO_FATAL_FAILURE(expectKept(week, g, round));
        std::set<std::string> on;
        for (const PlanDay& d : week.days) {
            on.insert(d.drills.begin(), d.drills.end());
            thrown += d.throws > 0;
        }
        std::set<std::string> asked;
        for (const PlannedDrill& d : drills) asked.insert(d.drill);
        // Nothing vanishes: what stands on no day is named.
        ASSERT_LE(asked.size(), on.size() + week.blocked.size()) << "round " << round;
        placed += static_cast<int>(on.size()), blocked += static_cast<int>(week.blocked.size());
    }
    EXPECT_GT(placed, 5000);
    EXPECT_GT(blocked, 1000);
    EXPECT_GT(thrown, 200);
}

TEST(WeekGates, EverySetOfFindingsAtEveryAgeHasAPlanOrAReason) {
    std::mt19937 random(20);
    for (int age = 8; age <= 22; ++age)
        for (const std::string& finding : allFindings())
            for (const bool pain : {false, true}) {
                const DrillGates g{age, pain, pain ? "Elbow sore" : "", false, {}};
                const bool drilled = !drillsFor(playbook(), finding, g, 2).empty();
                ASSERT_NE(drilled, !whyNoDrill(playbook(), finding, g).empty()) << finding << " at " << age;
                ASSERT_TRUE(drilled) << finding << " at " << age << (pain ? " in pain" : "");
            }
    for (int round = 0; round < 2000; ++round) {
        const DrillGates g = randomGates(random);
        std::vector<PlannedDrill> drills;
        std::size_t reasons = 0, asked = 1 + random() % 3;
        for (std::size_t n = 0; n < asked; ++n) {
            const std::string& finding = allFindings()[random() % allFindings().size()];
            const auto fit = drillsFor(playbook(), finding, g, 1);
            if (fit.empty()) {
                ASSERT_FALSE(whyNoDrill(playbook(), finding, g).empty());
                ++reasons;
            } else
                drills.push_back({fit[0]->id, finding, fit[0]->dose, false});
        }
        const WeekPlan week = layOutWeek(playbook(), drills, g);
        EXPECT_TRUE(!week.days.empty() || !week.blocked.empty() || reasons == asked) << round;
    }
}

TEST(Drills, EveryNeedHasADrillInEveryGroupAtEveryAge) {
    for (const char* finding : {"back-knee", "trunk-forward", "elbow-bend", "tempo"})
        for (const Need need : kNeeds)
            for (const int age : {9, 10, 14, 22}) {
                const auto offers = offersFor(playbook(), finding, {age, true, "", false, {}}, need);
                ASSERT_FALSE(offers.empty());
                // Quick work of the upper body is a throw, with a ball or without: not in pain.
                const bool rests = need == Need::Speed && playbook().groupOfFinding(finding) != "lower";
                const bool fits = offers.front().fitsNeed && offers.front().blocked.empty();
                EXPECT_TRUE(fits || rests) << finding << " " << idOf(need) << " at " << age;
                for (const DrillOffer& o : offers)
                    EXPECT_FALSE(o.drill->throwing && o.blocked.empty()) << o.drill->id;
            }
}

TEST(Drills, EachSaysForWhomItIsNotAndWhatItIsFor) {
    EXPECT_GE(playbook().drills.size(), 30U);
    for (const Drill& d : playbook().drills) {
        EXPECT_FALSE(d.notFor.empty()) << d.id;
        EXPECT_FALSE(d.needs.empty()) << d.id;
        EXPECT_GE(d.ageFrom, 8) << d.id;
    }
}

TEST(Drills, AMissingPartnerIsStoodInForByANet) {
    DrillGates g{15, false, "", false, {}};
    g.at.without = {"a partner"};
    EXPECT_TRUE(blockedBy(*playbook().drill("rock-and-throw"), g).empty());
    EXPECT_FALSE(blockedBy(*playbook().drill("one-knee-throw"), g).empty());
    g.at.without.push_back("a net");
    EXPECT_FALSE(blockedBy(*playbook().drill("rock-and-throw"), g).empty());
}

TEST(Drills, WhatIsSoreRulesOutDrillsThatNameIt) {
    const Drill& squat = *playbook().drill("leg-strength");
    EXPECT_FALSE(blockedBy(squat, {15, true, "My KNEE hurts", false, {}}).empty());
    EXPECT_TRUE(blockedBy(squat, {15, true, "Elbow sore", false, {}}).empty());
}

// Worked examples of the published table, from memory: Pitch Smart, MLB and USA Baseball.
TEST(ThrowingGuidance, AgreesWithItsWorkedExamples) {
    EXPECT_EQ(throwingGuidance(8)->mostADay, 50);
    EXPECT_EQ(throwingGuidance(12)->mostADay, 85);
    EXPECT_EQ(throwingGuidance(12)->restAfter(20), 0);
    EXPECT_EQ(throwingGuidance(12)->restAfter(21), 1);
    EXPECT_EQ(throwingGuidance(12)->restAfter(66), 4);
    EXPECT_EQ(throwingGuidance(15)->restAfter(30), 0);
    EXPECT_EQ(throwingGuidance(18)->restAfter(80), 3);
    EXPECT_EQ(throwingGuidance(18)->restAfter(81), 4);
    EXPECT_FALSE(throwingGuidance(30));
    EXPECT_NE(said(guidanceInWords(12)).find("league's own rules come first"), std::string::npos);
    EXPECT_NE(said(guidanceInWords(30)).find("league's own rules"), std::string::npos);
}

TEST(WeekGates, ThrowingDaysKeepTheirRest) {
    const std::vector<PlannedDrill> drills = {{"rock-and-throw", "trunk-forward", {2, 25, 3}, false}};
    const WeekPlan week = layOutWeek(playbook(), drills, {12, false, "", false, {}});
    ASSERT_EQ(week.days.size(), 2U); // 50 throws at 12: two days of rest
    EXPECT_GE(week.days[1].weekday - week.days[0].weekday, 3);
    EXPECT_NE(said(joined(ListStyle::Sentences, week.notes)).find("2 days a week instead of 3"),
              std::string::npos);
}

TEST(Claims, WhatNoVideoCanShowIsMarked) {
    EXPECT_EQ(claimIn("It doubles the torque at the elbow."), "torque");
    EXPECT_FALSE(claimIn("Half of it is 20 percent of your power.").empty());
    EXPECT_FALSE(claimIn("That loads the elbow.").empty());
    EXPECT_TRUE(claimIn("When the front knee gives, the trunk can't go forward.").empty());
    EXPECT_TRUE(claimIn("Reinforced cloth.").empty());
    for (const Cause& c : playbook().causes) EXPECT_TRUE(claimIn(c.why).empty()) << c.why;
}

} // namespace
} // namespace jg
