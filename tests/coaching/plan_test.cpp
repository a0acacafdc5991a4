// SPDX-License-Identifier: GPL-3.0-or-later
// Causes, the week and the statistics of change.
#include "coaching/causes.h"
#include "coaching/change.h"
#include "coaching/playbook_reader.h"
#include "coaching/week.h"
#include "tests/support/core.h"

#include <algorithm>
#include <fstream>
#include <set>

namespace jg {
namespace {

using test::playbook;

DrillGates gatesAt(int age, bool pain = false) {
    return {age, pain, "", false, {}};
}

TEST(Causes, ACircleHasARootAndEveryFindingItsPlace) {
    Playbook book = playbook();
    book.causes = {{"leg-spread", "trunk-forward", "says", "", "why"},
                   {"trunk-forward", "leg-spread", "says", "", "why"},
                   {"trunk-forward", "elbow-height", "says", "", "why"}};
    const CauseReport r = explain(book, {{"elbow-height", Verdict::Change, 9},
                                         {"trunk-forward", Verdict::Change, 5},
                                         {"leg-spread", Verdict::Change, 2}});
    ASSERT_EQ(r.roots.size(), 1U);
    EXPECT_EQ(r.roots[0].id, "leg-spread"); // the lower body stands before the upper
    EXPECT_EQ(r.roots[0].explains, (std::vector<std::string>{"elbow-height", "trunk-forward"}));
    EXPECT_EQ(r.order, (std::vector<std::string>{"leg-spread", "trunk-forward", "elbow-height"}));
}

TEST(Causes, TheRootStandsBeforeWhatItExplains) {
    const CauseReport r = explain(playbook(), {{"trunk-forward", Verdict::Change, 5},
                                               {"leg-spread", Verdict::Change, 3},
                                               {"back-knee", Verdict::Change, 2}});
    ASSERT_EQ(r.roots.size(), 1U);
    EXPECT_EQ(r.roots[0].id, "back-knee");
    EXPECT_EQ(r.roots[0].explains.size(), 2U);
    EXPECT_FALSE(r.roots[0].evidence.empty());
    EXPECT_EQ(r.order, (std::vector<std::string>{"back-knee", "leg-spread", "trunk-forward"}));
}

TEST(Causes, ArmProtectionComesFirst) {
    const CauseReport r =
        explain(playbook(), {{"back-knee", Verdict::Change, 9}, {"elbow-height", Verdict::Protect, 2}});
    EXPECT_EQ(r.order.front(), "elbow-height");
}

TEST(Causes, RealChangesComeBeforeNearMisses) {
    const CauseReport r =
        explain(playbook(), {{"foot-from-above", Verdict::Nearly, 1}, {"trunk-forward", Verdict::Change, 4}});
    EXPECT_EQ(r.order.front(), "trunk-forward");
}

TEST(Causes, WhatShouldAlsoSufferAndDoesNotSpeaksAgainst) {
    const CauseReport r = explain(
        playbook(), {{"leg-spread", Verdict::Change, 3, "below"}, {"stride", Verdict::Change, 3, "below"}},
        {{"front-knee-release", Looked::Good}});
    ASSERT_EQ(r.roots.size(), 1U);
    ASSERT_EQ(r.roots[0].against.size(), 1U);
    EXPECT_NE(said(r.roots[0].against[0]).find(playbook().nameOfFinding("front-knee-release")),
              std::string::npos);
}

TEST(Week, LowerAndUpperBodyNeverShareADay) {
    std::vector<PlannedDrill> drills;
    for (const Drill& d : playbook().drills) drills.push_back({d.id, d.serves.front(), d.dose, false});
    const WeekPlan week = layOutWeek(playbook(), drills, gatesAt(15));
    EXPECT_TRUE(week.blocked.empty());
    EXPECT_TRUE(week.missingDose.empty());
    std::set<int> seen;
    for (const PlanDay& day : week.days) {
        EXPECT_TRUE(seen.insert(day.weekday).second);
        for (const std::string& id : day.drills) EXPECT_EQ(playbook().drill(id)->body, day.body);
    }
}

TEST(Week, PainBlocksThrowing) {
    const WeekPlan week =
        layOutWeek(playbook(), {{"rock-and-throw", "trunk-forward", {1, 25, 1}, false}}, gatesAt(15, true));
    ASSERT_EQ(week.blocked.size(), 1U);
    EXPECT_NE(said(week.blocked[0]).find("pain"), std::string::npos);
    EXPECT_TRUE(week.days.empty());
    for (const Drill* d : drillsFor(playbook(), "trunk-forward", gatesAt(15, true), 9)) EXPECT_FALSE(d->ball);
}

TEST(Week, PainBlocksTheMotionOfAThrowBallOrNot) {
    const WeekPlan week =
        layOutWeek(playbook(), {{"towel-reach", "trunk-forward", {3, 10, 2}, false}}, gatesAt(15, true));
    EXPECT_EQ(week.blocked.size(), 1U); // a towel in the hand loads the arm as a throw does
    for (const Drill& d : playbook().drills)
        if (d.ball) {
            EXPECT_TRUE(d.throwing) << d.id;
        }
    for (const Drill* d : drillsFor(playbook(), "trunk-forward", gatesAt(15, true), 9))
        EXPECT_FALSE(d->throwing) << d->id;
}

TEST(Week, ADrillBelowItsAgeIsBlockedAndAMissingDoseIsNamed) {
    const WeekPlan week = layOutWeek(playbook(),
                                     {{"ladder-hop", "stride", {4, 6, 2}, false},
                                      {"stride-out", "knee-holds", {0, 0, 0}, false},
                                      {"balance-lift", "head-in-box", {0, 0, 0}, true}},
                                     gatesAt(10));
    ASSERT_EQ(week.blocked.size(), 1U);
    EXPECT_NE(said(week.blocked[0]).find("age 11"), std::string::npos);
    EXPECT_EQ(week.missingDose, (std::vector<std::string>{"stride-out"}));
}

TEST(Week, AnUnknownDrillIsSaid) {
    const WeekPlan week = layOutWeek(playbook(), {{"nothing", "x", {1, 1, 1}, false}}, gatesAt(15));
    EXPECT_NE(said(week.blocked.at(0)).find("not in the playbook"), std::string::npos);
}

TEST(Drills, EightAtLeastEachWithADoseAndAFinding) {
    EXPECT_GE(playbook().drills.size(), 8U);
    for (const Drill& d : playbook().drills) {
        EXPECT_FALSE(d.dose.missing()) << d.id;
        EXPECT_FALSE(d.serves.empty()) << d.id;
        EXPECT_FALSE(d.how.empty()) << d.id;
    }
    EXPECT_EQ(wordsOf(Dose{3, 8, 2}), "3 rounds of 8");
    EXPECT_EQ(wordsOf(Dose{1, 25, 1}), "25");
    EXPECT_EQ(wordsOf(Dose{}), "dose missing");
}

TEST(Drills, EveryMeasureOfTheApproachHasOne) {
    for (const Target& t : playbook().approach("load-and-drive")->targets)
        if (t.type != TargetType::Record) {
            EXPECT_FALSE(drillsFor(playbook(), t.measure, gatesAt(15, false), 2).empty()) << t.measure;
        }
}

// Weir 2005: smallest real difference = SEM x 1.96 x sqrt(2).
TEST(Change, SmallestRealChange) {
    EXPECT_NEAR(smallestRealChange(2, 2), 2 * 1.96 * std::sqrt(2.0), 1e-3);
    EXPECT_FALSE(reallyChanged(129, 2, 133, 2));
    EXPECT_TRUE(reallyChanged(32, 2, 48, 2));
}

TEST(Playbook, AFileThatNamesSomethingUnknownIsRefusedWithItsPlace) {
    const test::TempFolder folder;
    for (const char* name :
         {"measures.json", "depths.json", "items.json", "drills.json", "load-and-drive.json"})
        std::filesystem::copy_file(test::playbookFolder() / name, folder / name);
    std::ofstream(folder / "causes.json")
        << R"({"causes":[{"from":"back-knee","to":"nowhere","says":"x","effect":"y","why":"z"}]})";
    const auto loaded = loadPlaybook(folder.path());
    ASSERT_FALSE(loaded);
    EXPECT_NE(said(loaded.error().text).find("nowhere"), std::string::npos);
    EXPECT_FALSE(loadPlaybook(folder / "missing"));
}

} // namespace
} // namespace jg
