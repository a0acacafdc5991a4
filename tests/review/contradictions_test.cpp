// SPDX-License-Identifier: GPL-3.0-or-later
// What a review says twice and differently, each made once and found; and nothing is found where there is
// none.
#include "review/assess/contradictions.h"

#include "review/record/written.h"
#include "tests/review/made_review.h"

#include <algorithm>
#include <random>

namespace jg {
namespace {

using test::clip;
using test::playbook;
using test::review;

std::vector<Contradiction> found(const Review& r, Hand hand = Hand::Right) {
    return contradictionsIn(r, playbook(), assess(r, playbook(), clip(), hand), hand);
}

bool says(const std::vector<Contradiction>& all, const std::string& words) {
    return std::any_of(all.begin(), all.end(),
                       [&](const Contradiction& c) { return said(c.text).find(words) != std::string::npos; });
}

TEST(Contradictions, NoneInAReviewWithNothingInIt) {
    EXPECT_TRUE(found(review()).empty());
}

TEST(Contradictions, AnItemAgainstTheNumberThatTellsTheSame) {
    Review r = review();
    r.judging().approach = *playbook().approach("stretch-and-sequence");
    test::place(r, Moment::Set, 10, {{Landmark::Crown, {500, 100}}, {Landmark::Ground, {500, 600}}});
    test::place(r, Moment::Plant, 90, {{Landmark::LeadAnkle, {700, 580}}, {Landmark::Glove, {640, 300}}});
    r.judging().grades[{1, "glove-firm"}] = {GradeState::Graded, 5, "", {}}; // 12 % short of the foot
    ASSERT_TRUE(says(found(r), "\"Glove side stays firm\" is graded as good"));
    r.judging().grades[{1, "glove-firm"}].reason = "she was told to, this once";
    EXPECT_FALSE(says(found(r), "is graded as good")); // a decision, on record
    r.judging().grades[{1, "glove-firm"}] = {GradeState::Graded, 1, "", {}};
    EXPECT_FALSE(says(found(r), "Glove side"));
    test::place(r, Moment::Plant, 90, {{Landmark::LeadAnkle, {700, 580}}, {Landmark::Glove, {760, 300}}});
    EXPECT_TRUE(says(found(r), "\"Glove side stays firm\" is graded as a fault"));
    r.judging().grades[{1, "glove-firm"}] = {GradeState::Graded, 4, "", {}}; // nearly is no fault
    EXPECT_FALSE(says(found(r), "Glove side"));
}

TEST(Contradictions, AStopOrACorrectionAgainstItsVerdict) {
    Review r = review();
    r.judging().grades[{1, "knee-holds"}] = {GradeState::Graded, 1, "", {}};
    r.stops = {{{"a"}, StopKind::Strength, "knee-holds", "Front knee", 1}};
    EXPECT_TRUE(says(found(r), "told as a strength but judged as a fault"));
    r.judging().grades[{1, "knee-holds"}].step = 5;
    EXPECT_TRUE(found(r).empty());
    r.stops[0].kind = StopKind::Correction;
    EXPECT_TRUE(says(found(r), "told as something to work on but judged as good"));
    r.stops.clear();
    r.plan.corrections = {"knee-holds"};
    EXPECT_TRUE(says(found(r), "among the things to work on but judged as good"));
}

TEST(Contradictions, TheVoiceAgainstTheLetter) {
    Review r = review();
    for (const char* id : {"knee-holds", "glove-firm"})
        r.judging().grades[{1, id}] = {GradeState::Graded, 1, "", {}};
    r.stops = {{{"a"}, StopKind::Correction, "glove-firm", "Glove", 1}};
    r.takes[{"a"}] = Take{};
    r.plan.corrections = {"knee-holds"};
    const auto all = found(r);
    EXPECT_TRUE(says(all, "\"Glove\" is said in the film but is not in the letter"));
    EXPECT_TRUE(says(all, "in the letter but not said"));
    EXPECT_TRUE(std::none_of(all.begin(), all.end(), [](const Contradiction& c) { return c.stop; }));
    r.plan.corrections = {"glove-firm"};
    EXPECT_TRUE(found(r).empty());
}

TEST(Contradictions, LeftForRight) {
    Review r = review();
    r.plan.opening = "Your left throwing arm is late.";
    EXPECT_TRUE(says(found(r), "left throwing arm"));
    EXPECT_TRUE(found(r, Hand::Left).empty());
    r.plan.opening = "Your left front knee holds, your right back leg pushes, and your right hand is up.";
    EXPECT_TRUE(found(r).empty());
    EXPECT_EQ(found(r, Hand::Left).size(), 2U);
    r.plan.opening = "As a left-hander you know that.";
    EXPECT_TRUE(says(found(r), "left-hander"));
}

TEST(Contradictions, ANumberThatIsNotTheMeasuredOne) {
    Review r = review();
    test::place(r, Moment::Release, 100,
                {{Landmark::BackHip, {600, 500}}, {Landmark::Neck, {600 + 62.487, 400}}}); // 32 degrees
    r.plan.opening = "Your trunk at release was at 45 degrees.";
    EXPECT_TRUE(
        says(found(r), "\"45 degrees\" is written of Trunk forward at release, which was measured as 32"));
    r.plan.opening = "Your trunk at release was at 32 degrees, we want 48 degrees.";
    EXPECT_TRUE(found(r).empty());
    r.plan.opening = "It was 45 degrees outside."; // of no measure
    EXPECT_TRUE(found(r).empty());
}

TEST(Contradictions, ATargetAtAPositionItsMeasureIsNotTakenAt) {
    Review r = review();
    r.judging().approach.targets.front().position = Moment::Finish;
    EXPECT_TRUE(says(found(r), "where it is not taken"));
}

TEST(Written, NumbersAreReadWithTheirUnits) {
    const auto all = numbersIn("At 32.5 degrees, 83 ms, 12 % and 4 in; 7 innings.", {});
    ASSERT_EQ(all.size(), 4U);
    EXPECT_EQ(all[0].value, 32.5);
    EXPECT_EQ(all[0].decimals, 1);
    EXPECT_EQ(all[1].unit, "ms");
    EXPECT_EQ(all[2].unit, "%");
    EXPECT_EQ(all[3].unit, "in");
    const auto times = numbersIn("0.45 s, about 2 seconds; 3 shoulders", {});
    ASSERT_EQ(times.size(), 2U);
    EXPECT_EQ(times[0].value, 450);
    EXPECT_EQ(times[0].decimals, -1);
    EXPECT_EQ(times[0].unit, "ms");
    EXPECT_EQ(times[1].value, 2000);
    EXPECT_EQ(numbersIn("Knee 129 degrees. Hip 40 degrees.", {"knee"}).size(), 1U);
}

// Every contradiction of a random review is among those that were put into it, and the other way round.
TEST(Contradictions, AThousandRandomReviewsHoldNoneThatIsNotListed) {
    std::mt19937 engine(3);
    const auto chance = [&](unsigned n) { return engine() % n == 0; };
    int withSome = 0;
    for (int i = 0; i < 1000; ++i) {
        Review r = review();
        std::size_t expected = 0;
        for (const std::string& id : r.approach().graded) {
            const int step = 1 + static_cast<int>(engine() % 5);
            r.judging().grades[{1, id}] = {GradeState::Graded, step, "", {}};
            const bool good = step == 5, bad = step <= 3;
            if (chance(4)) {
                r.stops.push_back({{"s-" + id}, StopKind::Strength, id, "x", 1});
                expected += bad;
            } else if (chance(4)) {
                r.stops.push_back({{"c-" + id}, StopKind::Correction, id, "x", 1});
                expected += good;
            }
            if (chance(6)) {
                r.plan.corrections.push_back(id);
                expected += good;
            }
        }
        if (chance(3)) {
            r.plan.opening = "Your left throwing arm.";
            ++expected;
        }
        withSome += expected > 0;
        EXPECT_EQ(found(r).size(), expected) << i;
    }
    EXPECT_GT(withSome, 500);
}

} // namespace
} // namespace jg
