// SPDX-License-Identifier: GPL-3.0-or-later
// Before anything leaves the house: the check, and the letter's words.
#include "review/tell/send_check.h"

#include "review/assess/assess.h"
#include "review/assess/number_words.h"
#include "review/record/review_json.h"
#include "review/tell/letter_model.h"
#include "tests/review/stops.h"

#include <set>

namespace jg {
namespace {

using test::athlete;
using test::clip;
using test::mentions;
using test::place;
using test::playbook;
using test::review;
using test::stopsOf;
using test::submission;

Review finished() {
    Review r = review();
    for (const Target& t : r.judging().approach.targets)
        r.first().measureNotes[t.measure] = {MeasureState::NotApplicable, "Set aside"};
    for (const auto& id : r.judging().approach.graded)
        r.judging().grades[{1, id}] = {GradeState::Graded, 5, "", {}};
    r.judging().grades[{1, "knee-holds"}] = {GradeState::Graded, 1, "", {}};
    r.plan.corrections = {"knee-holds"};
    r.plan.keeps = {"load-shared"};
    r.plan.drills = {{"stride-out", "knee-holds", {3, 10, 2}, false}};
    r.plan.nextLook = test::today();
    return r;
}

/// An item, a measure, a stop and a dose are open.
Review withOpenThings() {
    Review r = finished();
    r.judging().grades.erase({1, "load-shared"});
    r.first().measureNotes.erase("stride");
    r.stops = {{{"s"}, StopKind::Correction, "knee-holds", "Front knee", 1}};
    r.plan.drills[0].dose = {};
    return r;
}

TEST(SendCheck, AFinishedReviewMayGo) {
    EXPECT_TRUE(stopsOf(finished(), submission()).empty());
}

TEST(SendCheck, OpenItemsUnsaidStopsAndMissingDosesForbid) {
    const auto stops = stopsOf(withOpenThings(), submission());
    EXPECT_TRUE(mentions(stops, "1 of 12 items"));
    EXPECT_TRUE(mentions(stops, "measures are not looked at"));
    EXPECT_TRUE(mentions(stops, "not said yet"));
    EXPECT_TRUE(mentions(stops, "dose of"));
}

TEST(SendCheck, EachOpenThingSaysWhereItIsMended) {
    const Review r = withOpenThings();
    std::set<Stage> doors;
    for (const SendProblem& p : checkBeforeSending(r, playbook(), assess(r, playbook(), clip(), Hand::Right),
                                                   athlete(), submission(), test::today())) {
        EXPECT_TRUE(p.mendAt || !p.stop) << said(p.text);
        if (p.mendAt) doors.insert(*p.mendAt);
    }
    EXPECT_EQ(doors, (std::set<Stage>{Stage::Measure, Stage::Judge, Stage::Say, Stage::Prescribe}));
}

TEST(SendCheck, AnotherAthletesFilmIsRefused) {
    Submission s = submission();
    s.clips[0].athlete = {"ath-2"};
    EXPECT_TRUE(mentions(stopsOf(finished(), s), "belongs to another athlete"));
    Submission other = submission();
    other.athlete = {"ath-2"};
    EXPECT_TRUE(mentions(stopsOf(finished(), other), "belongs to another athlete"));
    Review r = finished();
    r.first().clip = {"clip-of-someone"};
    EXPECT_TRUE(mentions(stopsOf(r, submission()), "belongs to another athlete"));
}

TEST(SendCheck, PainRefusesThrowingAndWantsAConfirmation) {
    Submission s = submission();
    s.pain = "Elbow sore";
    Review r = finished();
    r.plan.drills.push_back({"rock-and-throw", "knee-holds", {1, 25, 1}, false});
    const auto stops = stopsOf(r, s);
    EXPECT_TRUE(mentions(stops, "is a throw"));
    EXPECT_TRUE(mentions(stops, "confirm"));
    r.plan.drills.pop_back();
    r.plan.painConfirmed = true;
    EXPECT_TRUE(stopsOf(r, s).empty());
}

TEST(SendCheck, AMinorsLetterGoesToTheGuardian) {
    const auto minor = recipientFor(athlete(15), test::today());
    ASSERT_TRUE(minor);
    EXPECT_TRUE(minor->guardian);
    EXPECT_EQ(minor->email, "ludo.home@example.org");
    const auto adult = recipientFor(athlete(20), test::today());
    EXPECT_EQ(adult->email, "ludo@example.org");
    Athlete orphan = athlete(15);
    orphan.guardianEmail.clear();
    ASSERT_FALSE(recipientFor(orphan, test::today()));
    EXPECT_TRUE(mentions(stopsOf(finished(), submission(), orphan), "guardian"));
}

TEST(SendCheck, AStrengthThatIsACorrectionIsFound) {
    Review r = finished();
    r.stops = {{{"s"}, StopKind::Strength, "knee-holds", "Front knee", 1}};
    r.takes[{"s"}] = {};
    EXPECT_TRUE(mentions(stopsOf(r, submission()), "both a strength and a correction"));
}

TEST(SendCheck, MoreThanThreeCorrectionsAreTooMany) {
    Review r = finished();
    r.plan.corrections = {"knee-holds", "whole-foot-landing", "foot-from-above", "front-knee-plant"};
    EXPECT_TRUE(mentions(stopsOf(r, submission()), "More than 3 corrections"));
}

TEST(Letter, ANegativeNumberCarriesAMinusAndNoughtCarriesNone) {
    EXPECT_EQ(numberInWords(-3.4, "deg"), "\u22123\u00b0");
    EXPECT_EQ(numberInWords(-0.26, "x"), "\u22120.3");
    EXPECT_EQ(numberInWords(-0.3, "%"), "0 %");
    EXPECT_EQ(numberInWords(-0.04, "x"), "0.0");
    EXPECT_EQ(numberInWords(12.5, "in"), "13 in");
}

TEST(SendCheck, AnEmptyLetterSaysWhatIsMissing) {
    Review r = finished();
    r.plan.keeps.clear();
    r.plan.corrections.clear();
    r.plan.drills.clear();
    EXPECT_TRUE(mentions(stopsOf(r, submission()), "The letter is empty"));
    r.stops = {{{"s"}, StopKind::Strength, "load-shared", "Load", 1}};
    r.takes[{"s"}] = {};
    EXPECT_FALSE(mentions(stopsOf(r, submission()), "The letter is empty"));
    const LetterModel m = writeLetter(r, playbook(), {}, athlete(), submission(), {});
    EXPECT_EQ(m.greeting, "Ludo, one thing I liked");
}

TEST(Letter, TheReasonIsOneThatWasNotRuledOut) {
    Review r = finished();
    r.plan.corrections = {"leg-spread"};
    // Its first link comes from the back knee, which is good here; the stride that suffers from it is not.
    Assessment a;
    const auto found = [&](const char* id, bool strength) {
        Judged j;
        j.finding.id = id;
        j.strength = strength;
        a.findings.push_back(j);
    };
    found("leg-spread", false);
    found("back-knee", true);
    found("stride", false);
    const auto why = [&] {
        return writeLetter(r, playbook(), a, athlete(), submission(), {}).corrections.at(0).why;
    };
    EXPECT_EQ(why(), "Legs that open less often land shorter.");
    for (Judged& j : a.findings) j.strength = j.finding.id != "leg-spread";
    found("front-knee-release", true);
    found("front-knee-change", true);
    EXPECT_EQ(why(), ""); // all ruled out
}

TEST(Letter, SaysWhatWasFoundInPlainWords) {
    Review r = finished();
    r.plan.keeps.clear();
    place(r, Moment::Plant, 174,
          {{Landmark::BackAnkle, {200, 500}},
           {Landmark::Pelvis, {300, 400}},
           {Landmark::LeadAnkle, {400, 500}}});
    r.first().measureNotes.erase("leg-spread");
    r.plan.corrections = {"leg-spread"};
    r.plan.drills = {{"wall-hip-lead", "leg-spread", {3, 8, 2}, false}};
    const LetterModel m = writeLetter(r, playbook(), assess(r, playbook(), clip(), Hand::Right), athlete(),
                                      submission(), {"The Tram Shed", "Ilse Varnholt", ""});
    EXPECT_EQ(m.greeting, "Ludo, one thing to try");
    ASSERT_EQ(m.corrections.size(), 1U);
    EXPECT_NE(said(m.corrections[0].number).find("90\u00b0"), std::string::npos);
    EXPECT_NE(said(m.corrections[0].number).find("at least 106"), std::string::npos);
    ASSERT_EQ(m.week.size(), 1U);
    EXPECT_EQ(m.week[0].days, "Mon, Thu");
    EXPECT_EQ(m.week[0].dose, "3 rounds of 8");
    // A drill's own film is told where the drill is.
    Playbook linked = playbook();
    for (Drill& d : linked.drills)
        if (d.id == r.plan.drills[0].drill) d.link = "https://films.example.org/wall";
    const LetterModel told = writeLetter(r, linked, assess(r, linked, clip(), Hand::Right), athlete(),
                                         submission(), House{"Shed", "Ilse Varnholt", ""});
    EXPECT_NE(said(told.week[0].how).find("https://films.example.org/wall"), std::string::npos);
    EXPECT_EQ(said(m.week[0].how).find("https:"), std::string::npos);
    EXPECT_TRUE(m.cautions.empty());
    Submission hurt = submission();
    hurt.pain = "Elbow";
    EXPECT_NE(said(writeLetter(r, playbook(), {}, athlete(), hurt, {}).cautions.at(0)).find("stop throwing"),
              std::string::npos);
}

TEST(Pain, CountsForEveryFilmUntilItIsClosedOnRecord) {
    Review r = review();
    EXPECT_FALSE(mentions(stopsOf(r, submission()), "Pain is reported"));
    const auto with = [&](const Submission& s, bool elsewhere) {
        std::vector<std::string> texts;
        for (const SendProblem& p :
             checkBeforeSending(r, playbook(), assess(r, playbook(), clip(), Hand::Right), athlete(), s,
                                test::today(), elsewhere))
            texts.push_back(said(p.text));
        return mentions(texts, "Pain is reported");
    };
    EXPECT_TRUE(with(submission(), true));
    Submission hurt = submission();
    hurt.pain = "Elbow sore";
    EXPECT_TRUE(with(hurt, false));
    hurt.painClosed = PainClosed{test::today(), "Cleared by the team's doctor."};
    EXPECT_FALSE(with(hurt, false));
    EXPECT_EQ(*submissionFromJson(toJson(hurt)), hurt);
}

} // namespace
} // namespace jg
