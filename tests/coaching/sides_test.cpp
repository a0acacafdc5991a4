// SPDX-License-Identifier: GPL-3.0-or-later
// What the playbook says of each side: nothing contradicts, nothing comes after its effect, nothing is
// missing unsaid.
#include "coaching/causes.h"
#include "coaching/drill_gates.h"
#include "coaching/hypotheses.h"
#include "coaching/playbook_rows.h"
#include "coaching/row_order.h"
#include "kinematics/answers.h"
#include "tests/support/core.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <set>

namespace jg {
namespace {

using test::playbook;

/// Every side on which an approach can find a row off.
std::set<std::pair<std::string, std::string>> faultable() {
    std::set<std::pair<std::string, std::string>> all;
    for (const Approach& a : playbook().approaches) {
        for (const Target& t : a.targets) {
            const bool sides = playbook().measure(t.measure)->hasSides();
            const bool low = t.type == TargetType::AtLeast || t.type == TargetType::Band;
            const bool high = t.type == TargetType::AtMost || t.type == TargetType::Band;
            if (low) all.insert({t.measure, sides ? std::string(kBelow) : ""});
            if (high) all.insert({t.measure, sides ? std::string(kAbove) : ""});
            if (t.type == TargetType::Options) all.insert({t.measure, ""});
        }
        for (const std::string& id : a.graded) {
            const auto sides = playbook().sidesOf(id);
            if (sides.empty()) all.insert({id, ""});
            for (const std::string& side : sides) all.insert({id, side});
        }
    }
    return all;
}

TEST(Sides, AreWrittenAndRead) {
    EXPECT_EQ(sidedRowFrom("leg-spread:below"), (SidedRow{"leg-spread", "below"}));
    EXPECT_EQ(textOf(sidedRowFrom("load-shared")), "load-shared");
    EXPECT_TRUE(meets({"a", ""}, {"a", "below"}));
    EXPECT_FALSE(meets({"a", "above"}, {"a", "below"}));
    EXPECT_FALSE(meets({"a", ""}, {"b", ""}));
}

TEST(Sides, EveryEdgeStandsBetweenSidesAndNeverAgainstTime) {
    const Playbook& book = playbook();
    for (const Cause& c : book.causes) {
        for (const SidedRow& end : {c.cause(), c.consequence()})
            if (const MeasureDefinition* m = book.measure(end.row); m && m->hasSides()) {
                EXPECT_FALSE(end.side.empty()) << textOf(end);
            }
        EXPECT_FALSE(isLater(book, c.from, c.to)) << c.from << " > " << c.to;
    }
    Cause late{"back-foot-off", "elbow-height", "me", "arm load", "Because."};
    EXPECT_FALSE(checkRow(book, PlaybookRow{late}));
    Cause well{"back-foot-off", "trunk-forward", "me", "velocity", "It may."};
    EXPECT_TRUE(checkRow(book, PlaybookRow{well}));
}

TEST(Sides, EachThatCanBeFoundHasItsWordsInBothLanguages) {
    const Playbook& book = playbook();
    const Words& spanish = wordsOf("es");
    const auto said = [&](const std::string& where, const std::string& text) {
        EXPECT_FALSE(text.empty()) << where;
        EXPECT_NE(spanish(asIs(text)), text) << where << ": no Spanish for " << text;
    };
    for (const auto& [row, side] : faultable()) {
        const std::string where = row + ":" + side;
        if (const MeasureDefinition* m = book.measure(row)) {
            const bool seen = m->kind == MeasureKind::Seen;
            said(where + " goal", seen ? m->goal : side == kAbove ? m->goalDown : m->goalUp);
            said(where + " cue", seen ? m->feel : side == kAbove ? m->feelDown : m->feelUp);
            continue;
        }
        const GradedItem& item = *book.item(row);
        const GradedItem::Side* own = item.side(side);
        EXPECT_FALSE((own ? own->fault : item.fault).empty()) << where; // for the coach: it never leaves
        said(where + " goal", own ? own->goal : item.goal);
        said(where + " young", own ? own->young : item.young);
        said(where + " player", own ? own->player : item.player);
        said(where + " why", item.parent);
        said(where + " praise", item.praise);
        EXPECT_NE(item.praise, item.parent) << where;
    }
}

TEST(Sides, NoDrillTrainsBothAndNoneAgainstWhatItTrains) {
    for (const Drill& d : playbook().drills) {
        for (const std::string& text : d.serves) {
            const SidedRow f = sidedRowFrom(text);
            if (const MeasureDefinition* m = playbook().measure(f.row); m && m->hasSides()) {
                EXPECT_FALSE(f.side.empty()) << d.id << " " << text;
            }
            if (!f.side.empty()) {
                EXPECT_FALSE(isAmong(d.serves, textOf({f.row, otherSide(f.side)}))) << d.id << " " << text;
            }
            EXPECT_FALSE(isAmong(d.against, text)) << d.id << " " << text;
        }
    }
}

TEST(Sides, EachHasADrillOfItsOwnOrIsKnownToHaveNone) {
    const std::set<std::string> none = {
        "back-knee-beside:above", "ball-show:below",    "chin-behind:below",   "head-stack:below",
        "knee-path:above",        "lift-closure:below", "release-ahead:above", "separation:above",
        "shoulders-closed:below", "stance-width:above", "trunk-forward:above", "trunk-load:below"};
    std::set<std::string> found;
    for (const auto& [row, side] : faultable()) {
        const SidedRow f{row, side};
        const bool made = std::any_of(playbook().drills.begin(), playbook().drills.end(),
                                      [&](const Drill& d) { return d.trains(f); });
        if (!made) found.insert(textOf(f));
    }
    EXPECT_EQ(found, none);
}

// What letters once said: a stride that is too long explained by what is said of a short one, and the drill
// that lengthens it.
TEST(Sides, TooLongIsNeverExplainedByWhatIsSaidOfTooShort) {
    const Finding longStride{"leg-spread", Verdict::Change, 4, "above"},
        shortStride{"leg-spread", Verdict::Change, 4, "below"};
    const Finding softKnee{"front-knee-release", Verdict::Change, 4, "below"};
    EXPECT_TRUE(explain(playbook(), {longStride, softKnee}).links.empty());
    EXPECT_EQ(explain(playbook(), {shortStride, softKnee}).links.size(), 1U);
    DrillGates gates;
    gates.age = 15;
    for (const DrillOffer& o : offersFor(playbook(), "leg-spread:above", gates))
        EXPECT_FALSE(o.drill->trains({"leg-spread", "below"})) << o.drill->id;
    EXPECT_EQ(offersFor(playbook(), "leg-spread:above", gates).front().drill->id, "short-stride");
    // The commonest correction of all: an elbow above the shoulders, and nothing that lifts it.
    for (const DrillOffer& o : offersFor(playbook(), "elbow-height:above", gates))
        EXPECT_NE(o.drill->id, "wall-slides");
    EXPECT_EQ(offersFor(playbook(), "elbow-height:above", gates).front().drill->id, "mirror-arm");
    // A fault on the other side speaks against a cause.
    const auto report = explain(playbook(), {{"back-knee", Verdict::Change, 4, "above"}, longStride});
    ASSERT_FALSE(report.roots.empty());
    const Root* knee = report.root("back-knee");
    ASSERT_TRUE(knee);
    EXPECT_TRUE(knee->explains.empty());
    EXPECT_FALSE(knee->against.empty());
}

TEST(Sides, ADrillThatAsksForTheOppositeOfAChosenCorrectionIsBlocked) {
    DrillGates gates;
    gates.age = 15;
    gates.chosen = {{"hand-early", "above"}};
    EXPECT_FALSE(blockedBy(*playbook().drill("landing-throw"), gates).empty());
    gates.chosen = {{"hand-up", "below"}};
    EXPECT_TRUE(blockedBy(*playbook().drill("landing-throw"), gates).empty());
    EXPECT_FALSE(blockedBy(*playbook().drill("late-hands"), gates).empty());
}

// Pain and injuries are matched as people say them: plural, in Spanish, by another name of the joint.
TEST(Sides, WhatADrillIsNotForIsMatchedAsPeopleSayIt) {
    DrillGates gates;
    gates.age = 15;
    gates.pain = true;
    for (const char* words : {"both knees hurt", "Me duele la rodilla", "patellar tendon is sore"}) {
        gates.painWords = words;
        EXPECT_FALSE(blockedBy(*playbook().drill("hop-and-stick"), gates).empty()) << words;
    }
    gates.pain = false;
    gates.painWords.clear();
    gates.backFrom = "a torn meniscus in the left knee";
    EXPECT_FALSE(blockedBy(*playbook().drill("hop-and-stick"), gates).empty());
}

// An edition of a row says which fields changed: each has a name.
TEST(Sides, EveryFieldOfARowHasAName) {
    std::set<std::string> fields;
    const auto add = [&](const PlaybookRow& empty, const PlaybookRow& row) {
        for (const std::string& field : changedFields(empty, row)) fields.insert(field);
    };
    for (const GradedItem& i : playbook().items) add(GradedItem{}, i);
    for (const Drill& d : playbook().drills) add(Drill{}, d);
    for (const Cause& c : playbook().causes) add(Cause{}, c);
    EXPECT_GT(fields.size(), 20U);
    for (const std::string& field : fields)
        EXPECT_EQ(english()(msg("row-field." + field)).find("row-field"), std::string::npos) << field;
}

} // namespace
} // namespace jg
