// SPDX-License-Identifier: GPL-3.0-or-later
// What may be behind a correction, praise in the playbook's words, and whose numbers the letter tells.
#include "review/tell/weighing.h"

#include "kinematics/answers.h"
#include "review/assess/summary.h"
#include "review/record/read_by.h"
#include "review/record/review_json.h"
#include "review/tell/letter_model.h"
#include "review/tell/plan_rules.h"
#include "review/tell/send_check.h"
#include "tests/review/made_review.h"

#include <gtest/gtest.h>

#include <set>

namespace jg {
namespace {

const Playbook& book() {
    return test::playbook();
}

/// An approach of a few graded rows, graded.
Review graded(std::map<std::string, int> grades) {
    Review r = test::review();
    Approach a = *book().approach("load-and-drive");
    a.targets.clear();
    a.graded.clear();
    for (const auto& [item, step] : grades) {
        a.graded.push_back(item);
        r.judging().grades[{1, item}] = {GradeState::Graded, step, "", {}};
    }
    r.judging().approach = a;
    return r;
}

Assessment weighed(const Review& r) {
    return assess(r, book(), test::clip(), Hand::Right);
}

TEST(Weighing, TellsApartWhatIsLikelyRuledOutAndOpen) {
    Review r = graded({{"whole-foot-landing", 1}, {"foot-comes-down", 1}, {"forward-and-down", 5}});
    r.judging().grades[{1, "whole-foot-landing"}].side = "heel";
    r.plan.corrections = {"whole-foot-landing"};
    const Assessment a = weighed(r);
    const auto all = weighedIn(r, book(), a);
    ASSERT_EQ(all.size(), 1U);
    const auto has = [](const std::vector<Hypothesis>& list, const std::string& row) {
        return std::any_of(list.begin(), list.end(), [&](const auto& h) { return h.cause == row; });
    };
    EXPECT_TRUE(has(all[0].likely, "foot-comes-down"));
    EXPECT_TRUE(has(all[0].ruledOut, "forward-and-down"));
    EXPECT_TRUE(has(all[0].open, "forward-down")); // nobody measured it
    const std::string told = said(weighingInWords(book(), a, all[0]));
    EXPECT_NE(told.find("probably plays a part: " + book().item("foot-comes-down")->fault), std::string::npos)
        << told;
    EXPECT_NE(told.find("ruled out: " + book().item("forward-and-down")->fault), std::string::npos) << told;
}

TEST(Weighing, AFamilyIsToldNoOtherSchoolsOpinion) {
    Review r = graded({{"whole-foot-landing", 1}, {"forward-and-down", 1}});
    r.judging().grades[{1, "whole-foot-landing"}].side = "heel";
    r.plan.corrections = {"whole-foot-landing"};
    const Assessment a = weighed(r);
    const Weighed all = weighedIn(r, book(), a).at(0);
    const Weighed held = heldBy(r.approach(), all);
    EXPECT_FALSE(all.likely.empty()); // "First steps" says so
    EXPECT_TRUE(held.likely.empty());
    for (const Hypothesis& h : held.open) EXPECT_TRUE(isHeldBy(r.approach(), h.says));
}

TEST(Weighing, StandsInTheLetterForParentsAlone) {
    Review r = graded({{"whole-foot-landing", 1}, {"foot-comes-down", 1}});
    r.judging().grades[{1, "whole-foot-landing"}].side = "heel";
    r.plan.corrections = {"whole-foot-landing"};
    for (const Audience reader : allAudiences()) {
        r.plan.reader = reader;
        const LetterModel letter =
            writeLetter(r, book(), weighed(r), test::athlete(), test::submission(), {});
        EXPECT_EQ(letter.corrections.at(0).weighed.empty(), reader != Audience::Parent);
    }
}

TEST(Sizes, ACorrectionSaysHowBigItIsWhereTheCoachSaidSo) {
    Review r = graded({{"whole-foot-landing", 1}});
    r.judging().grades[{1, "whole-foot-landing"}].side = "heel";
    r.plan.corrections = {"whole-foot-landing"};
    const auto told = [&] {
        return said(writeLetter(r, book(), weighed(r), test::athlete(), test::submission(), {})
                        .corrections.at(0)
                        .size);
    };
    EXPECT_EQ(told(), "");
    std::set<std::string> all;
    for (const FindingSize size : kFindingSizes) {
        r.plan.sizes["whole-foot-landing"] = size;
        all.insert(told());
        const auto back = reviewFromJson(toJson(r));
        ASSERT_TRUE(back);
        EXPECT_EQ(back->plan.sizes, r.plan.sizes);
    }
    EXPECT_EQ(all.size(), kFindingSizes.size()); // a style says nothing there: it is no correction
}

TEST(Sizes, AStyleIsKeptNeverProposedAndNeverSentAsACorrection) {
    Review r = graded({{"carried-leg", 1}, {"whole-foot-landing", 5}});
    const auto proposed = [&] {
        const Assessment a = weighed(r);
        const Proposal p = proposePriorities(book(), r, a, causesOf(book(), a, r.plan), 15);
        return std::any_of(p.work.begin(), p.work.end(),
                           [](const Proposed& w) { return w.finding == "carried-leg"; });
    };
    const auto letter = [&] {
        return writeLetter(r, book(), weighed(r), test::athlete(), test::submission(), {});
    };
    const auto stopped = [&] {
        const auto all =
            checkBeforeSending(r, book(), weighed(r), test::athlete(), test::submission(), test::today());
        return std::any_of(all.begin(), all.end(), [](const SendProblem& p) {
            return p.stop && said(p.text).find("their own style") != std::string::npos;
        });
    };
    EXPECT_TRUE(proposed());
    r.plan.sizes["carried-leg"] = FindingSize::Style;
    EXPECT_FALSE(proposed());
    ASSERT_TRUE(isAmong(letter().kept, "carried-leg"));
    EXPECT_NE(said(letter().keeps.back()).find("your own way"), std::string::npos);
    EXPECT_FALSE(stopped());
    r.plan.corrections = {"carried-leg"};
    EXPECT_TRUE(stopped());
    EXPECT_FALSE(isAmong(letter().kept, "carried-leg")); // never both
}

TEST(Sizes, WhatProtectsTheArmIsNoStyle) {
    Review r = graded({{"back-toes-down", 1}});
    r.plan.sizes["back-toes-down"] = FindingSize::Style;
    const Assessment a = weighed(r);
    ASSERT_TRUE(a.judged("back-toes-down"));
    ASSERT_EQ(a.judged("back-toes-down")->finding.verdict, Verdict::Protect);
    EXPECT_FALSE(isStyle(r.plan, a, "back-toes-down"));
    EXPECT_EQ(proposePriorities(book(), r, a, causesOf(book(), a, r.plan), 15).work.size(), 1U);
    EXPECT_FALSE(
        isAmong(writeLetter(r, book(), a, test::athlete(), test::submission(), {}).kept, "back-toes-down"));
}

TEST(NothingToWorkOn, SaysSoOrSaysThatNothingIsSure) {
    Review r = graded({{"whole-foot-landing", 5}, {"carried-leg", 5}});
    const auto told = [&] {
        return said(writeLetter(r, book(), weighed(r), test::athlete(), test::submission(), {}).summary);
    };
    EXPECT_NE(told().find("nothing that has to change"), std::string::npos) << told();
    for (auto& [key, grade] : r.judging().grades) grade = {GradeState::CannotTell, 0, "blurred", {}};
    EXPECT_NE(told().find("anything for sure"), std::string::npos) << told();
    r.judging().grades[{1, "carried-leg"}] = {GradeState::Graded, 1, "", {}};
    EXPECT_EQ(told(), ""); // there is something, and the coach chose not to tell it
}

TEST(Guidance, AFamilyIsToldToAskItsLeagueUntilTheCoachLookedTheFiguresUp) {
    Review r = graded({{"chest-arrives", 1}});
    r.plan.corrections = {"chest-arrives"};
    r.plan.drills = {{"rock-and-throw", "chest-arrives", {1, 25, 1}, false}};
    r.plan.circumstances.throwing = true;
    const auto notes = [&](bool confirmed) {
        House house;
        house.guidanceConfirmed = confirmed;
        std::string all;
        for (const Message& m :
             writeLetter(r, book(), weighed(r), test::athlete(), test::submission(), house).weekNotes)
            all += said(m) + "\n";
        return all;
    };
    EXPECT_NE(notes(true).find("from memory"), std::string::npos) << notes(true);
    EXPECT_EQ(notes(false).find("from memory"), std::string::npos) << notes(false);
    EXPECT_NE(notes(false).find("ask your league"), std::string::npos) << notes(false);
}

/// A number with hardly any error, as it is wanted by `type`.
MeasureRow numberOf(const std::string& id, double value, TargetType type, double x, double y = 0) {
    const MeasureDefinition& m = *book().measure(id);
    MeasureRow row;
    row.id = id;
    row.value = MeasureValue{};
    row.value.id = id;
    row.value.unit = m.unit;
    row.value.value = value;
    row.value.sd = 1;
    row.value.low95 = value - 2;
    row.value.high95 = value + 2;
    row.target = Target{id, m.moments.front(), type, x, y, 5, {}, m.unit};
    return row;
}

std::string praised(const MeasureRow& row, Audience reader) {
    Assessment a;
    a.measures = {row};
    return said(keepLine(a, book(), row.id, ReadBy{reader, 14, 1.7}));
}

TEST(Praise, OfANumberFollowsWhatIsWantedAndIsNeverTheFaultsText) {
    const MeasureDefinition& m = *book().measure("leg-spread");
    const std::string wide = praised(numberOf("leg-spread", 112, TargetType::AtLeast, 106), Audience::Player);
    const std::string narrow = praised(numberOf("leg-spread", 90, TargetType::AtMost, 100), Audience::Player);
    EXPECT_TRUE(wide.starts_with(m.praise.at("high"))) << wide;
    EXPECT_TRUE(narrow.starts_with(m.praise.at("low"))) << narrow;
    EXPECT_NE(wide.find("112"), std::string::npos) << wide;
    const std::string child = praised(numberOf("leg-spread", 112, TargetType::AtLeast, 106), Audience::Young);
    EXPECT_EQ(child.find("112"), std::string::npos) << child;
    EXPECT_EQ(child.find("\u00b1"), std::string::npos) << child;
}

TEST(Praise, OfALookNamesWhatItDoes) {
    MeasureRow row = numberOf("back-foot-set", 0, TargetType::Options, 0);
    row.value.value.reset();
    row.value.seen = "along the rubber";
    row.target.wanted = {"along the rubber"};
    const std::string told = praised(row, Audience::Player);
    EXPECT_TRUE(told.starts_with("Your back foot lies along the rubber")) << told;
    EXPECT_NE(told.find("Go on like that."), std::string::npos) << told; // a wording of "Keep it."
}

TEST(Praise, FiveStrengthsWhereTheDeliveryIsStrong) {
    EXPECT_EQ(mostKept(0), 5U);
    EXPECT_EQ(mostKept(1), 5U);
    EXPECT_EQ(mostKept(2), 3U);
}

TEST(Leading, IsTheFirstDeliveryWithSomethingOnIt) {
    Review r = test::review();
    EXPECT_EQ(r.leading(), 1);
    DeliveryMarks front = r.first();
    front.number = 2;
    front.moments[Moment::Plant] = {80, ""};
    r.deliveries.push_back(front);
    EXPECT_EQ(r.leading(), 2); // nothing is on the first
    EXPECT_EQ(assess(r, book(), test::clip(), Hand::Right).delivery, 2);
    r.first().moments[Moment::Plant] = {70, ""};
    EXPECT_EQ(r.leading(), 1);
}

TEST(ByEye, ARowThatTheViewCannotMeasureIsOpenToAVerdictAndMarkedSo) {
    Review r = test::review();
    Approach a = *book().approach("load-and-drive");
    a.graded.clear();
    std::erase_if(a.targets, [](const Target& t) { return t.measure != "foot-direction"; });
    ASSERT_EQ(a.targets.size(), 1U);
    r.judging().approach = a;
    const Assessment before = weighed(r); // the film is from the open side
    ASSERT_EQ(before.measure("foot-direction")->value.state, MeasureState::NotVisible);
    EXPECT_EQ(before.notSeen.size(), 1U);
    Grade grade{GradeState::Graded, 1, "the toe points far across", {}};
    grade.side = std::string(kAbove);
    r.judging().grades[{1, "foot-direction"}] = grade;
    r.plan.corrections = {"foot-direction"};
    const Assessment now = weighed(r);
    EXPECT_EQ(now.measure("foot-direction")->judgement.state, JudgeState::Graded);
    EXPECT_NE(said(now.measure("foot-direction")->judgement.text).find("By eye; a film from front"),
              std::string::npos);
    EXPECT_TRUE(now.notSeen.empty());
    EXPECT_EQ(now.sided("foot-direction").side, kAbove);
    const LetterModel letter = writeLetter(r, book(), now, test::athlete(), test::submission(), {});
    EXPECT_NE(said(letter.corrections.at(0).number).find("by eye"), std::string::npos);
}

TEST(Results, KeepWhatWasSeen) {
    Assessment a;
    MeasureRow row = numberOf("back-foot-set", 0, TargetType::Options, 0);
    row.value.value.reset();
    row.value.seen = "along the rubber";
    row.target.wanted = {"along the rubber"};
    a.measures = {row};
    const auto back = assessmentFromJson(toJson(a));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->measure("back-foot-set")->value.seen, "along the rubber");
}

} // namespace
} // namespace jg
