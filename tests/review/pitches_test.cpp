// SPDX-License-Identifier: GPL-3.0-or-later
// Several deliveries and several views in one review.
#include "review/assess/guide.h"
#include "review/record/deliveries.h"
#include "review/record/edit.h"
#include "review/record/review_json.h"
#include "review/tell/letter_model.h"
#include "review/tell/send_check.h"
#include "review/tell/stops.h"
#include "tests/support/core.h"

namespace jg {
namespace {

using test::playbook;

DeliveryValue pitch(int n, double value, double sd = 1, std::optional<Verdict> verdict = Verdict::Keep) {
    DeliveryValue d;
    d.number = d.pitch = n;
    d.value.value = value;
    d.value.unit = "deg";
    d.value.sd = sd;
    d.value.low95 = value - 1.96 * sd;
    d.value.high95 = value + 1.96 * sd;
    d.verdict = verdict;
    return d;
}

TEST(Pitches, MeanAndSpreadByHand) {
    std::vector<DeliveryValue> v = {pitch(1, 128), pitch(2, 131, 1, Verdict::Change), pitch(3, 134)};
    const auto s = spreadOf(v);
    ASSERT_TRUE(s);
    EXPECT_EQ(s->pitches, 3);
    EXPECT_DOUBLE_EQ(s->mean, 131);
    EXPECT_DOUBLE_EQ(s->sd, 3); // (9 + 0 + 9) / 2
    // Two-sided t with two degrees of freedom is 4.303 (Student 1908, from memory).
    EXPECT_NEAR(s->half95, 4.303 * 3 / std::sqrt(3.0), 1e-9);
    EXPECT_EQ(s->offTarget, 1);
    EXPECT_EQ(pitchesInWords(*s, v),
              "3 pitches: 131\u00b0 \u00b1 7\u00b0 on average, spread 3\u00b0. Off target in 1 of 3.");
    EXPECT_TRUE(std::none_of(v.begin(), v.end(), [](const auto& d) { return d.standsOut; }));
}

TEST(Pitches, TheMeanIsNeverSurerThanOneMeasurement) {
    std::vector<DeliveryValue> v = {pitch(1, 100, 4), pitch(2, 100, 4), pitch(3, 100, 4), pitch(4, 100, 4)};
    EXPECT_NEAR(spreadOf(v)->half95, 1.96 * 4, 1e-9);
}

TEST(Pitches, OneThatLiesFarOffStandsOutAndTwoNeverDo) {
    std::vector<DeliveryValue> v = {pitch(1, 130), pitch(2, 131), pitch(3, 129), pitch(4, 150)};
    const auto s = spreadOf(v);
    EXPECT_TRUE(v[3].standsOut);
    EXPECT_FALSE(v[0].standsOut || v[1].standsOut || v[2].standsOut);
    EXPECT_NE(said(pitchesInWords(*s, v)).find("Pitch 4 stands out with 150\u00b0."), std::string::npos);
    // With an error as large as the distance nothing can be said.
    v[3] = pitch(4, 150, 10);
    spreadOf(v);
    EXPECT_FALSE(v[3].standsOut);
    std::vector<DeliveryValue> two = {pitch(1, 100), pitch(2, 180)};
    spreadOf(two);
    EXPECT_FALSE(two[0].standsOut || two[1].standsOut);
}

TEST(Pitches, TwoFilmsOfOnePitchCountOnceByTheSurerNumber) {
    std::vector<DeliveryValue> v = {pitch(1, 128, 5), pitch(1, 130, 1), pitch(2, 134, 1)};
    const auto s = spreadOf(v);
    ASSERT_TRUE(s);
    EXPECT_EQ(s->pitches, 2);
    EXPECT_DOUBLE_EQ(s->mean, 132);
    v.pop_back();
    EXPECT_FALSE(spreadOf(v)); // one pitch has no spread
}

TEST(Pitches, NumbersOfDifferentUnitsAreNotAveraged) {
    std::vector<DeliveryValue> v = {pitch(1, 80), pitch(2, 62)};
    v[1].value.unit = "in";
    EXPECT_FALSE(spreadOf(v));
}

/// An open-side film of two deliveries and a front film.
Submission twoFilms() {
    Submission s;
    s.id = {"sub-1"};
    s.athlete = {"ath-1"};
    s.received = test::today();
    for (const View view : {View::Open, View::Front}) {
        Clip c;
        c.id = {view == View::Open ? "open" : "front"};
        c.athlete = {"ath-1"};
        c.view = view;
        c.captureFps = 120;
        c.frames = 400;
        c.width = 1280;
        c.height = 720;
        s.clips.push_back(c);
    }
    return s;
}

Review begun() {
    Review r;
    r.id = {"rev-1"};
    r.submission = {"sub-1"};
    r.athlete = {"ath-1"};
    r.first().clip = {"open"};
    r.date = test::today();
    r.judging().approach = *playbook().approach("load-and-drive");
    return r;
}

/// Plant with a leg spread opened by `wide` pixels at each foot.
void plantAt(Review& r, std::int64_t frame, double wide, int delivery = 1) {
    apply(r, {asIs("plant"),
              {SetMoment{Moment::Plant, MomentMark{frame, ""}},
               SetPoint{{frame, Landmark::BackAnkle}, PointMark{{{660 - wide, 590}, 2}, ""}},
               SetPoint{{frame, Landmark::Pelvis}, PointMark{{{660, 430}, 2}, ""}},
               SetPoint{{frame, Landmark::LeadAnkle}, PointMark{{{660 + wide, 600}, 2}, ""}}},
              delivery});
}

/// A delivery added while the first is in hand; its number.
int add(Review& r, const Submission& s, const Clip& clip, std::optional<FrameSpan> cut) {
    const DeliveryMarks fresh = nextDelivery(r, 1, clip, cut, s.clips);
    apply(r, {asIs("another"), {SetDelivery{fresh.number, fresh}}, fresh.number});
    return fresh.number;
}

TEST(Pitches, AMeasureOfTwoDeliveriesHasBothAndTheOneInHandIsJudged) {
    const Submission s = twoFilms();
    Review r = begun();
    r.first().cut = FrameSpan{0, 150};
    plantAt(r, 100, 190);
    EXPECT_EQ(add(r, s, s.clips[0], FrameSpan{200, 399}), 2);
    EXPECT_EQ(r.delivery(2)->pitch, 2); // the same side cannot show the same pitch twice
    plantAt(r, 300, 230, 2);
    const Assessment a = assess(r, playbook(), s.clips, Hand::Right, 2);
    const MeasureRow* row = a.measure("leg-spread");
    ASSERT_EQ(row->deliveries.size(), 2U);
    EXPECT_EQ(row->delivery, 2);
    EXPECT_EQ(row->deliveries[0].number, 2); // in hand first
    EXPECT_DOUBLE_EQ(*row->value.value, *row->deliveries[0].value.value);
    // atan(190/160) + atan(190/170) and the same with 230, by hand.
    EXPECT_NEAR(*row->deliveries[0].value.value, 55.18 + 53.53, 0.05);
    EXPECT_NEAR(*row->deliveries[1].value.value, 49.90 + 48.18, 0.05);
    ASSERT_TRUE(row->spread);
    EXPECT_NEAR(row->spread->mean, (108.71 + 98.08) / 2, 0.05);
    EXPECT_NEAR(*assess(r, playbook(), s.clips, Hand::Right, 1).measure("leg-spread")->value.value, 98.08,
                0.05);
}

TEST(Pitches, AMeasureTakesTheFilmThatCanShowIt) {
    const Submission s = twoFilms();
    Review r = begun();
    plantAt(r, 100, 210);
    DeliveryMarks& front = *r.delivery(add(r, s, s.clips[1], std::nullopt));
    EXPECT_EQ(front.pitch, 1); // another side: taken to show the pitch in hand
    EXPECT_EQ(nameOf(front, s.clips), "Pitch 1, front");
    front.moments[Moment::Plant] = {90, ""};
    const Assessment a = assess(r, playbook(), s.clips, Hand::Right, 2);
    const MeasureRow* row = a.measure("leg-spread");
    ASSERT_TRUE(row->value.value);
    EXPECT_EQ(row->delivery, 1);
    EXPECT_FALSE(row->spread); // one pitch
    ASSERT_FALSE(row->value.warnings.empty());
    EXPECT_EQ(row->value.warnings.back(), "Measured on the open side film.");
    // A stop on it shows the film the number is from.
    const auto stop = stopFor(r, playbook(), a, "leg-spread", {"s1"});
    EXPECT_EQ(stop->delivery, 1);
    EXPECT_EQ(stop->frame, 100);
    r.plan.corrections = {"leg-spread"};
    Athlete athlete;
    athlete.firstName = "Ludo";
    athlete.born = Date{std::chrono::year{2011}, std::chrono::month{3}, std::chrono::day{1}};
    const LetterModel letter = writeLetter(r, playbook(), a, athlete, s, {"Shed", "Coach", "c@example.org"});
    EXPECT_EQ(letter.corrections.at(0).delivery, 1);
    EXPECT_EQ(letter.corrections.at(0).frame, 100);
}

TEST(Pitches, WhatThisFilmCannotShowNamesTheOneThatCan) {
    const Submission s = twoFilms();
    Review r = begun();
    r.first().clip = {"front"};
    r.first().moments[Moment::Plant] = {90, ""};
    const MeasureRow row = *assess(r, playbook(), s.clips, Hand::Right).measure("leg-spread");
    EXPECT_EQ(row.value.state, MeasureState::NotVisible);
    EXPECT_NE(said(row.value.reason).find("The open side film here can: choose it in Look."),
              std::string::npos)
        << row.value.reason;
}

TEST(Pitches, TheGuideKnowsWhatTheOthersStillAsk) {
    const Submission s = twoFilms();
    Review r = begun();
    plantAt(r, 100, 210);
    EXPECT_FALSE(openElsewhere(r, 1, playbook(), s.clips)); // one delivery
    add(r, s, s.clips[0], FrameSpan{200, 399});
    r.delivery(2)->moments[Moment::Plant] = {300, ""};
    const auto open = openElsewhere(r, 2, playbook(), s.clips);
    ASSERT_TRUE(open);
    EXPECT_EQ(open->first, 1);
    EXPECT_EQ(open->second, openSteps(r, r.first(), playbook(), s.clips[0]).size());
}

TEST(Pitches, TheLetterSaysInHowManyItShows) {
    const Submission s = twoFilms();
    Review r = begun();
    r.first().cut = FrameSpan{0, 150};
    plantAt(r, 100, 150);
    add(r, s, s.clips[0], FrameSpan{200, 399});
    plantAt(r, 300, 160, 2);
    r.plan.corrections = {"leg-spread"};
    Athlete athlete;
    athlete.firstName = "Ludo";
    athlete.born = Date{std::chrono::year{2011}, std::chrono::month{3}, std::chrono::day{1}};
    const auto numberOf = [&] {
        return writeLetter(r, playbook(), assess(r, playbook(), s.clips, Hand::Right), athlete, s, {})
            .corrections.at(0)
            .number;
    };
    EXPECT_NE(said(numberOf()).find("It shows in all two pitches."), std::string::npos) << numberOf();
    plantAt(r, 300, 260, 2);
    EXPECT_NE(said(numberOf()).find("It shows in one of two pitches."), std::string::npos) << numberOf();
}

TEST(Pitches, UndoGoesBackToTheDeliveryItBelongsTo) {
    const Submission s = twoFilms();
    Review r = begun();
    History history;
    history.perform(r, {asIs("plant"), {SetMoment{Moment::Plant, MomentMark{100, ""}}}, 1});
    const DeliveryMarks fresh = nextDelivery(r, 1, s.clips[1], std::nullopt, s.clips);
    history.perform(r, {asIs("another"), {SetDelivery{fresh.number, fresh}}, fresh.number});
    const Review before = r;
    history.perform(r, {asIs("plant"), {SetMoment{Moment::Plant, MomentMark{80, ""}}}, 2});
    EXPECT_EQ(history.undo(r), 2); // of the second delivery, whichever is in hand
    EXPECT_TRUE(r.delivery(2)->blank());
    EXPECT_EQ(history.undo(r), 2);
    EXPECT_EQ(r.deliveries.size(), 1U);
    EXPECT_EQ(history.redo(r), 2);
    EXPECT_EQ(r.deliveries, before.deliveries);
    EXPECT_EQ(history.redo(r), 2);
    EXPECT_EQ(r.delivery(2)->frameOf(Moment::Plant), 80);
    EXPECT_EQ(r.delivery(1)->frameOf(Moment::Plant), 100);
    EXPECT_EQ(r.delivery(3), nullptr);
}

TEST(Pitches, AreKeptWithTheReview) {
    const Submission s = twoFilms();
    Review r = begun();
    plantAt(r, 100, 190);
    add(r, s, s.clips[1], FrameSpan{20, 200});
    r.stops = {{{"a"}, StopKind::Recap, "", "recap", 100, 1}};
    const auto back = reviewFromJson(toJson(r));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->deliveries, r.deliveries);
    EXPECT_EQ(back->stops, r.stops);
    // Two of one number can't be told apart.
    r.deliveries.push_back(r.deliveries.back());
    EXPECT_EQ(reviewFromJson(toJson(r)).error().code, ErrorCode::Damaged);
}

TEST(Pitches, AFilmOfAnotherAthleteAsideForbidsSending) {
    Submission s = twoFilms();
    Review r = begun();
    add(r, s, s.clips[1], std::nullopt);
    s.clips[1].athlete = {"ath-2"};
    Athlete athlete;
    athlete.id = {"ath-1"};
    athlete.firstName = "Ludo";
    const auto problems = checkBeforeSending(r, playbook(), assess(r, playbook(), s.clips, Hand::Right),
                                             athlete, s, test::today());
    EXPECT_TRUE(std::any_of(problems.begin(), problems.end(), [](const SendProblem& p) {
        return p.stop && said(p.text).find("belongs to another athlete") != std::string::npos;
    }));
}

TEST(Pitches, WhichPitchAFilmShowsCanBeSaid) {
    const Submission s = twoFilms();
    Review r = begun();
    plantAt(r, 100, 190);
    add(r, s, s.clips[1], std::nullopt);
    r.delivery(2)->moments[Moment::Plant] = {90, ""};
    const PitchChoice choice = pitchChoice(r, 2, s.clips);
    EXPECT_EQ(choice.own, 2);
    EXPECT_EQ(choice.shared, 1);
    const Edit back = apply(r, {asIs("own"), {SetPitch{choice.own}}, 2});
    EXPECT_EQ(r.delivery(2)->pitch, 2);
    apply(r, back);
    EXPECT_EQ(r.delivery(2)->pitch, 1);
}

} // namespace
} // namespace jg
