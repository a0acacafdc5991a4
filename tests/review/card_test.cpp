// SPDX-License-Identifier: GPL-3.0-or-later
// The card: its rows, what stands behind them, and verdicts by hand.
#include "review/assess/card.h"

#include "review/assess/summary.h"
#include "review/record/review_json.h"
#include "review/tell/letter_model.h"
#include "review/tell/stops.h"
#include "tests/review/made_review.h"

#include <algorithm>

namespace jg {
namespace {

using test::athlete;
using test::clip;
using test::playbook;
using test::review;
using test::submission;

Assessment assessed(const Review& r, const Playbook& book = playbook()) {
    return assess(r, book, clip(), Hand::Right);
}

const CardRow* rowOf(const std::vector<CardRow>& card, const std::string& id) {
    const auto it = std::find_if(card.begin(), card.end(), [&](const CardRow& r) { return r.id == id; });
    return it == card.end() ? nullptr : &*it;
}

/// A trunk that leans by 32 degrees at release.
void leanBy32(Review& r) {
    test::place(r, Moment::Release, 100,
                {{Landmark::BackHip, {600, 500}}, {Landmark::Neck, {600 + 62.487, 400}}});
}

TEST(Card, HoldsAllRowsByTimeAndByBody) {
    const Review r = review();
    const Assessment a = assessed(r);
    const auto byTime = cardOf(r, playbook(), a), byBody = cardOf(r, playbook(), a, WalkOrder::Body);
    EXPECT_EQ(byTime.size(), r.approach().graded.size() + r.walkTargets().size());
    EXPECT_EQ(byTime.size(), byBody.size());
    EXPECT_TRUE(std::is_sorted(byTime.begin(), byTime.end(),
                               [](const auto& x, const auto& y) { return x.position < y.position; }));
    EXPECT_EQ(byBody.front().group, "lower");
    EXPECT_EQ(byBody.back().group, "timing");
    EXPECT_TRUE(rowOf(byTime, "load-shared")->open);
    EXPECT_TRUE(rowOf(byTime, "back-knee")->open);
}

TEST(Card, ItsPartsCountForThemselves) {
    Review r = review();
    r.judging().approach = *playbook().approach("card-of-parts");
    r.judging().grades[{1, "load-shared"}] = {GradeState::Graded, 4, "", {}};
    r.judging().grades[{1, "elbow-loose"}] = {GradeState::CannotTell, 0, "", {}};
    const auto card = cardOf(r, playbook(), assessed(r), WalkOrder::Body);
    const auto parts = partsOf(card);
    ASSERT_EQ(parts.size(), 7U);
    EXPECT_EQ(said(parts.front().name), "Back hip");
    EXPECT_EQ(card[parts[6].first].part, "Slowing down");
    std::size_t all = 0;
    const auto gradedIn = [&](const CardPartCount& part) { // what the view can't show counts as looked at
        std::size_t seen = 0;
        for (std::size_t i = part.first; i < part.first + part.all; ++i) seen += card[i].grade.has_value();
        return seen;
    };
    for (const CardPartCount& part : parts) {
        EXPECT_EQ(part.first, all);
        EXPECT_EQ(part.looked, gradedIn(part)) << said(part.name);
        all += part.all;
    }
    EXPECT_EQ(all, card.size());
    EXPECT_EQ(parts[6].all, 5U);
    EXPECT_GE(parts[6].looked, 1U);
    EXPECT_LT(parts[0].looked, parts[0].all);
    // A card without parts of its own has those of the body.
    const auto body = partsOf(cardOf(review(), playbook(), assessed(review()), WalkOrder::Body));
    EXPECT_EQ(said(body.front().name), "Lower body");
}

TEST(Card, APitchThatWentWhereItShouldIsAStrengthByItself) {
    Review r = review();
    const auto found = [&] { return assessed(r).judged("ball-on-target"); };
    EXPECT_FALSE(found());
    r.deliveries[0].conditions.went = Went::High;
    EXPECT_FALSE(found());
    r.deliveries[0].conditions.went = Went::Target;
    const Assessment a = assessed(r);
    ASSERT_TRUE(a.judged("ball-on-target"));
    EXPECT_TRUE(a.judged("ball-on-target")->strength);
    EXPECT_EQ(a.counts.judged, assessed(review()).counts.judged + 1);
    EXPECT_EQ(stopFor(r, playbook(), a, "ball-on-target", {"s"})->kind, StopKind::Strength);
    r.plan.keeps = {"ball-on-target"};
    const LetterModel letter =
        writeLetter(r, playbook(), a, athlete(), submission(), House{"Shed", "Ilse Varnholt", ""});
    ASSERT_EQ(letter.keeps.size(), 1U);
    EXPECT_NE(said(letter.keeps[0]).find("where you meant it to go"), std::string::npos);
    r.judging().grades[{1, "ball-on-target"}] = {
        GradeState::CannotTell, 0, "", {}}; // the coach's word counts
    EXPECT_TRUE(assessed(r).judged("ball-on-target")->cannotTell);
}

TEST(Card, ANumberStandsBehindTheItemThatTellsTheSame) {
    Review r = review();
    r.extras = {"front-knee-leak"};
    test::place(r, Moment::Plant, 90, {{Landmark::LeadKnee, {700, 500}}});
    test::place(r, Moment::Release, 100, {{Landmark::LeadKnee, {720, 500}}});
    test::place(r, Moment::Set, 10, {{Landmark::Crown, {500, 100}}, {Landmark::Ground, {500, 600}}});
    const Assessment a = assessed(r);
    const auto card = cardOf(r, playbook(), a);
    const MeasureRow* behind = numberBehind(*rowOf(card, "knee-holds"), playbook(), a);
    ASSERT_TRUE(behind);
    EXPECT_EQ(behind->id, "front-knee-leak");
    EXPECT_NEAR(*behind->value.value, 4, 0.2); // 20 of 500 px, and how near the knee is
    EXPECT_FALSE(numberBehind(*rowOf(card, "load-shared"), playbook(), a));
}

TEST(Card, AVerdictByHandCountsBeforeTheTargets) {
    Review r = review();
    leanBy32(r);
    EXPECT_EQ(assessed(r).measure("trunk-forward")->judgement.verdict, Verdict::Change);
    r.judging().grades[{1, "trunk-forward"}] = {GradeState::Graded, 4, "he is hurt", {}};
    const Assessment a = assessed(r);
    const MeasureRow& row = *a.measure("trunk-forward");
    EXPECT_EQ(row.judgement.verdict, Verdict::Nearly);
    EXPECT_NE(said(row.judgement.text).find("By hand: he is hurt"), std::string::npos);
    const auto back = assessmentFromJson(toJson(a));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->measure("trunk-forward")->byHand, row.byHand);
}

TEST(Card, WhatIsSeenIsJudgedAndTold) {
    Review r = review();
    r.extras = {"landing-part"};
    r.first().moments[Moment::FootTouch] = {80, ""};
    r.first().answers["landing-part"] = {"heel", {}};
    EXPECT_EQ(assessed(r).measure("landing-part")->judgement.state, JudgeState::Recorded);
    Target t;
    t.measure = "landing-part";
    t.position = Moment::FootTouch;
    t.type = TargetType::Options;
    t.unit = "seen";
    t.wanted = {"whole foot"};
    r.judging().approach.targets.push_back(t);
    const Assessment a = assessed(r);
    EXPECT_EQ(a.measure("landing-part")->judgement.verdict, Verdict::Change);
    EXPECT_EQ(std::count_if(a.measures.begin(), a.measures.end(),
                            [](const MeasureRow& m) { return m.id == "landing-part"; }),
              1);
    EXPECT_EQ(goalOf(playbook(), a, "landing-part"), "Land on the whole foot");
    r.plan.corrections = {"landing-part"};
    const LetterModel letter =
        writeLetter(r, playbook(), a, athlete(), submission(), House{"Shed", "Ilse Varnholt", ""});
    ASSERT_EQ(letter.corrections.size(), 1U);
    EXPECT_EQ(said(letter.corrections[0].title), "Land on the whole foot");
    EXPECT_NE(said(letter.corrections[0].number).find("heel. We want: whole foot"), std::string::npos);
}

// A correction is called by what is to be done, a strength by what is good.
TEST(Card, CorrectionsAreTitledByTheirGoal) {
    Review r = review();
    leanBy32(r);
    r.judging().grades[{1, "knee-holds"}] = {GradeState::Graded, 1, "", {}};
    r.judging().grades[{1, "carried-leg"}] = {GradeState::Graded, 5, "", {}};
    const Assessment a = assessed(r);
    EXPECT_EQ(stopFor(r, playbook(), a, "knee-holds", {"s"})->title, "Hold the front knee where it landed");
    EXPECT_EQ(stopFor(r, playbook(), a, "carried-leg", {"s"})->title, "Front leg is carried, not swung");
    EXPECT_EQ(stopFor(r, playbook(), a, "trunk-forward", {"s"})->title,
              "Bring the trunk further forward into release");
    r.plan.corrections = {"knee-holds"};
    const auto cueAt = [&](int age) {
        return said(
            writeLetter(r, playbook(), a, athlete(age), submission(), House{"Shed", "Ilse Varnholt", ""})
                .corrections[0]
                .feel);
    };
    EXPECT_EQ(cueAt(10), playbook().item("knee-holds")->young);
    EXPECT_EQ(cueAt(15), playbook().item("knee-holds")->player);
}

TEST(Card, AFindingOfTheCoachsOwnGoesAllTheWay) {
    Review r = review();
    r.own = {{"own-finding-1", "Taps the glove twice", "arm", 1, 42, "mirror-arm"}};
    const Playbook book = withOwnFindings(playbook(), r);
    EXPECT_TRUE(rowOf(cardOf(r, book, assessed(r, book)), "own-finding-1")->open);
    r.judging().grades[{1, "own-finding-1"}] = {GradeState::Graded, 2, "", {}};
    const Assessment a = assessed(r, book);
    const auto faults = a.faults();
    EXPECT_TRUE(
        std::any_of(faults.begin(), faults.end(), [](const Finding& f) { return f.id == "own-finding-1"; }));
    const auto stop = stopFor(r, book, a, "own-finding-1", {"s"});
    ASSERT_TRUE(stop);
    EXPECT_EQ(stop->frame, 42);
    EXPECT_EQ(drillsFor(book, "own-finding-1", {15, false, "", false, {}}, 1).front()->id, "mirror-arm");
    r.plan.corrections = {"own-finding-1"};
    const LetterModel letter =
        writeLetter(r, book, a, athlete(), submission(), House{"Shed", "Ilse Varnholt", ""});
    EXPECT_EQ(said(letter.corrections.at(0).title), "Taps the glove twice");
    EXPECT_EQ(letter.corrections[0].frame, 42);
    EXPECT_EQ(reviewFromJson(toJson(r))->own, r.own);
    EXPECT_EQ(withOwnFindings(book, review()).items.size(), playbook().items.size());
}

TEST(Card, ALenientRowHoldsNothingUpAndItsMissIsSmall) {
    Review r = review();
    leanBy32(r);
    const Counts before = assessed(r).counts;
    r.judging().approach.lenient = {"trunk-forward", "load-shared", "stride", "knee-holds"};
    r.judging().grades[{1, "knee-holds"}] = {GradeState::Graded, 1, "", {}};
    const Assessment a = assessed(r);
    EXPECT_EQ(a.measure("trunk-forward")->judgement.verdict, Verdict::Nearly);
    EXPECT_EQ(a.counts.judgedAll, before.judgedAll - 1);     // load-shared stays open
    EXPECT_EQ(a.counts.measuresAll, before.measuresAll - 1); // stride too
    for (const Judged& j : a.findings)
        if (j.finding.id == "knee-holds") {
            EXPECT_EQ(j.finding.verdict, Verdict::Nearly);
        }
}

TEST(Card, ATargetMeantForOthersSaysSo) {
    Review r = review();
    leanBy32(r);
    r.judging().age = 11;
    for (Target& t : r.judging().approach.targets)
        if (t.measure == "trunk-forward") t.ageFrom = 15;
    const auto warnings = assessed(r).measure("trunk-forward")->value.warnings;
    EXPECT_TRUE(std::any_of(warnings.begin(), warnings.end(), [](const Message& m) {
        return said(m).find("meant for ages 15") != std::string::npos;
    }));
}

} // namespace
} // namespace jg
