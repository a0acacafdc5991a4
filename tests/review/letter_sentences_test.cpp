// SPDX-License-Identifier: GPL-3.0-or-later
// The letter's sentences by name: the coach's own stand in their places, and are told when they no longer
// fit.
#include "review/record/review_json.h"
#include "review/tell/letter_sentences.h"
#include "tests/review/made_review.h"

#include <algorithm>
#include <set>

namespace jg {
namespace {

/// A review whose correction is how early the back foot leaves, with its number; release is frame 180.
Review reviewWith(std::int64_t off) {
    Review r = test::review();
    r.first().moments[Moment::Release] = {180, ""};
    r.first().moments[Moment::BackToeOff] = {off, ""};
    Approach a;
    a.targets = {Target{"back-foot-off", Moment::Release, TargetType::AtMost, -100, 0, 1, {}, "ms"}};
    r.judging().approach = a;
    r.plan.corrections = {"back-foot-off"};
    return r;
}

Assessment assessedHere(const Review& r) {
    return assess(r, test::playbook(), test::clip(), Hand::Right);
}

LetterModel letterOf(const Review& r) {
    LetterModel m =
        writeLetter(r, test::playbook(), assessedHere(r), test::athlete(), test::submission(), {});
    putOwnSentences(m, r.plan.sentences);
    return m;
}

const std::string kNumber = "number:back-foot-off";

/// The coach writes a sentence where the letter's stands now.
void write(Review& r, const std::string& key, const std::string& words) {
    const auto generated = generatedSentence(letterOf(r), key);
    ASSERT_TRUE(generated) << key;
    r.plan.sentences[key] = {words, *generated};
}

TEST(LetterSentences, EachHasItsOwnNameAndNoCautionIsAmongThem) {
    Review r = reviewWith(168);
    Submission hurt = test::submission();
    hurt.pain = "My elbow is sore.";
    LetterModel m = writeLetter(r, test::playbook(), assessedHere(r), test::athlete(), hurt, {});
    ASSERT_FALSE(m.cautions.empty());
    std::set<std::string> keys;
    for (const LetterSentence& s : sentencesOf(m)) {
        EXPECT_TRUE(keys.insert(s.key).second) << s.key;
        EXPECT_FALSE(s.own);
        for (const Message& caution : m.cautions) EXPECT_NE(s.text, caution);
    }
    for (const char* key : {"greeting", "title:back-foot-off", "number:back-foot-off", "closing"})
        EXPECT_TRUE(keys.contains(key)) << key;
}

TEST(LetterSentences, TheCoachsOwnStandsInItsPlaceAndTheLettersIsKeptBesideIt) {
    Review r = reviewWith(168);
    const std::string before = said(letterOf(r).corrections.at(0).number);
    write(r, kNumber, "Your back foot waits too long.");
    const LetterModel m = letterOf(r);
    EXPECT_EQ(said(m.corrections.at(0).number), "Your back foot waits too long.");
    EXPECT_EQ(said(*generatedSentence(m, kNumber)), before);
    EXPECT_TRUE(staleSentences(m).empty());
    r.plan.sentences.erase(kNumber);
    EXPECT_EQ(said(letterOf(r).corrections.at(0).number), before);
}

TEST(LetterSentences, OneThatNoLongerFitsStopsTheLetterUntilItIsWrittenAgain) {
    Review r = reviewWith(168);
    write(r, kNumber, "It leaves 100 ms early.");
    r.first().moments[Moment::BackToeOff] = {174, ""}; // another number
    const auto problems = staleSentences(letterOf(r));
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_TRUE(problems[0].stop);
    EXPECT_NE(said(problems[0].text).find("It leaves 100 ms early."), std::string::npos);
    EXPECT_NE(said(problems[0].text).find("(0.05 s)"), std::string::npos) << said(problems[0].text);
    write(r, kNumber, "It leaves 50 ms early.");
    EXPECT_TRUE(staleSentences(letterOf(r)).empty());
}

TEST(LetterSentences, AnotherLanguageOrAnotherCorrectionDoesNotMakeOneStale) {
    Review r = reviewWith(168);
    write(r, "closing", "See you on Monday.");
    r.plan.opening = "Something new in front.";
    EXPECT_TRUE(staleSentences(letterOf(r)).empty());
    EXPECT_EQ(said(letterOf(r).closing), "See you on Monday.");
}

TEST(LetterSentences, AreKeptWithTheReviewToTheLetter) {
    Review r = reviewWith(168);
    write(r, kNumber, "Ümlauts, \"quotes\" and {braces}.");
    r.stops.push_back({{"s1"}, StopKind::Own, "", "The glove", 12, 1, "What I say.", true});
    const auto back = reviewFromJson(toJson(r));
    ASSERT_TRUE(back) << said(back.error().text);
    EXPECT_EQ(back->plan, r.plan);
    EXPECT_EQ(back->stops, r.stops);
    EXPECT_EQ(said(letterOf(*back).corrections.at(0).number), "Ümlauts, \"quotes\" and {braces}.");
    EXPECT_TRUE(staleSentences(letterOf(*back)).empty());
}

TEST(LetterSentences, AWrongNumberInOneIsAContradiction) {
    Review r = reviewWith(168); // 100 ms before release
    const auto problemsOf = [&] {
        int found = 0;
        for (const SendProblem& p : checkBeforeSending(r, test::playbook(), assessedHere(r), test::athlete(),
                                                       test::submission(), r.date))
            found += said(p.text).find("450 ms") != std::string::npos;
        return found;
    };
    write(r, kNumber, "Your back foot leaves 450 ms before the ball.");
    EXPECT_EQ(problemsOf(), 1);
    write(r, kNumber, "Your back foot leaves 100 ms before the ball.");
    EXPECT_EQ(problemsOf(), 0);
    write(r, kNumber, "Your back foot leaves 0.1 s before the ball.");
    EXPECT_EQ(problemsOf(), 0);
    write(r, kNumber, "Your back foot leaves 0.45 s before the ball.");
    const auto problems =
        checkBeforeSending(r, test::playbook(), assessedHere(r), test::athlete(), test::submission(), r.date);
    EXPECT_TRUE(std::any_of(problems.begin(), problems.end(), [](const SendProblem& p) {
        return said(p.text).find("0.45 s") != std::string::npos;
    }));
}

TEST(NumberLine, ShowsTheNumberItsErrorAndWhatIsWanted) {
    MeasureRow row;
    row.value.value = 62;
    row.value.sd = 2;
    row.value.low95 = 58;
    row.value.high95 = 66;
    row.value.unit = "deg";
    const auto lineFor = [&](TargetType type, double x, double y) {
        row.target = Target{"front-knee", Moment::Plant, type, x, y, 1, {}, "deg"};
        return numberLineOf(row);
    };
    const auto least = lineFor(TargetType::AtLeast, 70, 0);
    ASSERT_TRUE(least);
    EXPECT_EQ(least->least, 70);
    EXPECT_FALSE(least->most);
    EXPECT_DOUBLE_EQ(least->value, 62);
    EXPECT_LT(least->from(), 58);
    EXPECT_GT(least->to(), 70);
    const auto band = lineFor(TargetType::Band, 70, 80);
    ASSERT_TRUE(band);
    EXPECT_EQ(band->least, 70);
    EXPECT_EQ(band->most, 80);
    EXPECT_EQ(lineFor(TargetType::AtMost, 50, 0)->most, 50);
    EXPECT_FALSE(lineFor(TargetType::Any, 0, 0));
    EXPECT_FALSE(lineFor(TargetType::Record, 0, 0));
    row.value.value.reset();
    EXPECT_FALSE(lineFor(TargetType::AtLeast, 70, 0));
}

} // namespace
} // namespace jg
