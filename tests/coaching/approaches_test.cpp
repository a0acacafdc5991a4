// SPDX-License-Identifier: GPL-3.0-or-later
// The shipped playbook as a whole: nine approaches, their rows, words, causes and drills.
#include "coaching/compare.h"
#include "coaching/playbook.h"
#include "coaching/playbook_reader.h"
#include "coaching/week.h"
#include "tests/support/core.h"

#include <algorithm>
#include <cctype>
#include <set>

namespace jg {
namespace {

using test::playbook;

TEST(Approaches, TenWithTheirAges) {
    EXPECT_EQ(playbook().approaches.size(), 10U);
    for (const char* id :
         {"load-and-drive", "drift-and-block", "tall-and-closed", "stretch-and-sequence", "arm-care-first",
          "first-steps", "straight-line-arm", "lift-and-sink", "card-of-parts", "late-and-neutral"}) {
        const Approach* a = playbook().approach(id);
        ASSERT_TRUE(a) << id;
        EXPECT_FALSE(a->about.empty()) << id;
        EXPECT_TRUE(checkApproach(playbook(), *a)) << id;
    }
    EXPECT_FALSE(playbook().approach("first-steps")->meantFor(15));
    EXPECT_TRUE(playbook().approach("first-steps")->meantFor(9));
    EXPECT_TRUE(playbook().approach("card-of-parts")->targets.empty());
    EXPECT_GE(playbook().approach("card-of-parts")->graded.size(), 35U);
}

// The fourteen rows of its own card (common practice, no source).
TEST(Approaches, LoadAndDriveAsksItsFourteenRows) {
    const Approach& a = *playbook().approach("load-and-drive");
    for (const char* row :
         {"back-knee", "head-stack", "break-timing", "hand-up", "knee-in", "front-knee-release", "leg-spread",
          "back-foot-off", "hip-through", "back-foot-set", "hunch", "release-ahead", "glove-reach",
          "elbow-height", "trunk-forward", "straight-early", "elbow-behind"})
        EXPECT_TRUE(a.targetOf(row)) << row;
}

TEST(Approaches, EveryTargetSaysWhyAndHasASoftMargin) {
    for (const Approach& a : playbook().approaches)
        for (const Target& t : a.targets) {
            if (t.asksNothing()) continue;
            EXPECT_FALSE(t.why.empty()) << a.id << " " << t.measure;
            if (t.type != TargetType::Options) {
                EXPECT_GT(t.soft, 0) << a.id << " " << t.measure;
            }
        }
}

TEST(Items, FiftyAndMoreWithAllTheirWords) {
    EXPECT_GE(playbook().items.size(), 50U);
    std::set<std::string> names;
    for (const GradedItem& i : playbook().items) {
        for (const std::string* words :
             {&i.name, &i.fault, &i.goal, &i.coach, &i.young, &i.player, &i.parent})
            EXPECT_FALSE(words->empty()) << i.id;
        EXPECT_NE(i.goal, i.name) << i.id << ": a correction titled by its good form reads as praise";
        EXPECT_NE(i.fault, i.name) << i.id;
        EXPECT_TRUE(names.insert(i.name).second) << i.name;
        const bool used =
            std::any_of(playbook().approaches.begin(), playbook().approaches.end(), [&](const Approach& a) {
                return std::find(a.graded.begin(), a.graded.end(), i.id) != a.graded.end();
            });
        // A pitch's outcome judges that one by itself, whatever the approach.
        EXPECT_TRUE(used || i.id == "ball-on-target") << i.id;
    }
    const GradedItem& holds = *playbook().item("knee-holds");
    EXPECT_EQ(holds.cueFor(9), holds.young);
    EXPECT_EQ(holds.cueFor(12), holds.player);
}

// Whatever is found can be worked on: by a quiet drill, from the youngest age an approach is meant for.
TEST(Drills, EveryFindingHasOneWithoutAThrowAtEveryAge) {
    std::set<std::string> found;
    for (const Approach& a : playbook().approaches) {
        for (const Target& t : a.targets)
            if (!t.asksNothing()) found.insert(t.measure);
        found.insert(a.graded.begin(), a.graded.end());
    }
    EXPECT_GT(found.size(), 100U);
    for (const std::string& id : found)
        EXPECT_FALSE(drillsFor(playbook(), id, {8, true, "", false, {}}, 1).empty()) << id;
}

TEST(Drills, WhatADrillIsMadeForComesFirst) {
    EXPECT_EQ(drillsFor(playbook(), "back-knee-first", {15, false, "", false, {}}, 1).front()->id,
              "knee-drive");
}

TEST(Measures, WhatIsJudgedHasAGoal) {
    for (const Approach& a : playbook().approaches)
        for (const Target& t : a.targets) {
            const MeasureDefinition& m = *playbook().measure(t.measure);
            if (t.asksNothing()) continue;
            if (m.kind == MeasureKind::Seen) {
                EXPECT_FALSE(m.goal.empty()) << m.id;
                continue;
            }
            EXPECT_FALSE(m.plainly.empty()) << m.id;
            const bool sequence = m.id.starts_with("lag-");
            EXPECT_TRUE(sequence || (!m.goalUp.empty() && !m.goalDown.empty())) << m.id;
        }
}

TEST(Compare, NamesTheRowsThatDiffer) {
    const Approach &deep = *playbook().approach("load-and-drive"),
                   &tall = *playbook().approach("tall-and-closed");
    const auto rows = compare(deep, tall);
    const auto row = [&](const char* id) {
        return std::find_if(rows.begin(), rows.end(), [&](const RowDifference& r) { return r.id == id; });
    };
    ASSERT_NE(row("back-knee"), rows.end());
    EXPECT_EQ(askedInWords(row("back-knee")->one), "at most 110");
    EXPECT_EQ(askedInWords(row("back-knee")->other), "at least 125");
    EXPECT_EQ(row("elbow-height"), rows.end()); // both ask the same
    EXPECT_EQ(askedInWords(row("stride")->other), "not asked");
    EXPECT_TRUE(compare(deep, deep).empty());
    EXPECT_TRUE(changesOf(playbook(), deep, deep).empty());
    Approach reworded = deep; // a reason and an age are a change too
    reworded.targets[0].why = "Said otherwise.";
    reworded.ageTo = 30;
    const auto words = changesOf(playbook(), deep, reworded);
    ASSERT_EQ(words.size(), 2U);
    EXPECT_NE(said(words[0]).find("11 to 30"), std::string::npos) << said(words[0]);
    EXPECT_NE(said(words[1]).find("its reason"), std::string::npos) << said(words[1]);
}

TEST(Focus, AsksOnlyWhatLiesInIt) {
    const Approach front = focused(*playbook().approach("load-and-drive"), *playbook().focus("front-leg"));
    EXPECT_TRUE(front.targetOf("front-knee-release"));
    EXPECT_FALSE(front.targetOf("elbow-height"));
    EXPECT_EQ(front.graded, (std::vector<std::string>{"whole-foot-landing", "knee-holds"}));
    // What opens into landing is another question; the landing itself is this one.
    EXPECT_FALSE(front.isLenient("stride"));
    EXPECT_TRUE(front.isLenient("foot-direction"));
    EXPECT_TRUE(checkApproach(playbook(), front));
}

TEST(Focus, BringsItsOwnRowsWhateverTheApproachAsks) {
    const FocusCard& direction = *playbook().focus("direction");
    ASSERT_FALSE(direction.adds.empty());
    for (const Approach& a : playbook().approaches) {
        const Approach part = focused(a, direction);
        for (const char* row : {"foot-line", "head-line", "body-path"})
            EXPECT_TRUE(part.targetOf(row)) << a.id;
        EXPECT_TRUE(checkApproach(playbook(), part)) << a.id;
    }
    // One that asks for such a row keeps its own target.
    const Approach straight = focused(*playbook().approach("straight-line-arm"), direction);
    EXPECT_EQ(*straight.targetOf("foot-line"),
              *playbook().approach("straight-line-arm")->targetOf("foot-line"));
}

TEST(Approaches, ThereAreTenAndEachEndIsGivenWhereBothCanBeWrong) {
    EXPECT_EQ(playbook().approaches.size(), 10U);
    for (const Approach& a : playbook().approaches)
        for (const char* row : {"elbow-height", "early-travel", "head-stack", "chin-behind", "hand-early"})
            if (const Target* t = a.targetOf(row)) {
                EXPECT_EQ(t->type, TargetType::Band) << a.id << " " << row;
            }
}

TEST(Drills, SayHowLongTheyTakeAndHowTheyGrow) {
    for (const Drill& d : playbook().drills) {
        EXPECT_GT(d.minutes, 0) << d.id;
        ASSERT_GE(d.stages.size(), 3U) << d.id;
        for (const DrillStage& s : d.stages) EXPECT_FALSE(s.what.empty() || s.until.empty()) << d.id;
    }
}

/// What a letter says of how a correction feels, whichever way the number is to go.
bool hasFeel(const MeasureDefinition& m, TargetType type) {
    if (std::any_of(playbook().items.begin(), playbook().items.end(),
                    [&](const GradedItem& i) { return i.measure == m.id; }))
        return true;
    const bool up = !m.feelUp.empty(), down = !m.feelDown.empty();
    if (type == TargetType::Options) return !m.feel.empty();
    return type == TargetType::AtLeast ? up : type == TargetType::AtMost ? down : up && down;
}

TEST(Approaches, EveryTargetThatCanBeMissedHasAFeelOfItsOwn) {
    int asked = 0;
    for (const Approach& a : playbook().approaches)
        for (const Target& t : a.targets) {
            if (t.asksNothing()) continue;
            ++asked;
            const MeasureDefinition& m = *playbook().measure(t.measure);
            EXPECT_TRUE(hasFeel(m, t.type)) << a.id << ": " << t.measure;
            for (const std::string* feel : {&m.feelUp, &m.feelDown, &m.feel})
                EXPECT_LE(std::count(feel->begin(), feel->end(), ' '), 14) << *feel; // a short sentence
        }
    EXPECT_GT(asked, 80);
}

} // namespace
} // namespace jg
