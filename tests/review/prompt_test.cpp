// SPDX-License-Identifier: GPL-3.0-or-later
// What stands beside the stage while a stop is said.
#include "review/tell/prompt.h"
#include "review/tell/stops.h"
#include "tests/review/made_review.h"

namespace jg {
namespace {

struct Spoken {
    Review review = test::review();
    Assessment assessment;

    Spoken() {
        review.first().moments[Moment::Release] = {180, ""};
        review.first().moments[Moment::BackToeOff] = {168, ""};
        Approach a;
        a.targets = {Target{"back-foot-off", Moment::Release, TargetType::AtMost, 50, 0, 1, {}, "ms"}};
        review.judging().approach = a;
        review.plan.corrections = {"back-foot-off"};
        assessment = assess(review, test::playbook(), test::clip(), Hand::Right);
        review.stops = {*stopFor(review, test::playbook(), assessment, "back-foot-off", {"s1"}),
                        {{"s2"}, StopKind::Own, "", "The glove", 100},
                        {{"s3"}, StopKind::Recap, "", "Once more", 100}};
    }
    Prompt of(std::size_t stop, int age = 15) const {
        return promptFor(review, test::playbook(), assessment, review.stops[stop],
                         {age < 12 ? Audience::Young : Audience::Player, age});
    }
};

TEST(Prompt, OfACorrectionTellsNumberTargetCueAndWhatComesNext) {
    const Spoken s;
    const Prompt p = s.of(0);
    EXPECT_EQ(said(p.what), goalOf(test::playbook(), s.assessment, "back-foot-off"));
    EXPECT_NE(said(p.number).find("about a tenth of a second (0.10 s)"), std::string::npos) << said(p.number);
    EXPECT_NE(said(p.number).find("0.05 s"), std::string::npos) << said(p.number);
    EXPECT_FALSE(p.feel.empty());
    EXPECT_EQ(said(p.next), "The glove");
    EXPECT_GE(p.sentences().size(), 2U);
    EXPECT_EQ(p.sentences().front(), p.number);
}

TEST(Prompt, OfAStopOfTheCoachsOwnHasTheirWordsAlone) {
    const Prompt p = Spoken().of(1);
    EXPECT_EQ(said(p.what), "The glove");
    EXPECT_TRUE(p.sentences().empty());
    EXPECT_EQ(said(p.next), "Once more");
}

TEST(Prompt, OfTheRecapNamesWhatIsWorkedOnAndTheNextLook) {
    Spoken s;
    s.review.plan.nextLook = parseIsoDate("2026-12-26");
    const Prompt p = s.of(2);
    EXPECT_NE(said(p.number).find(goalOf(test::playbook(), s.assessment, "back-foot-off")),
              std::string::npos);
    EXPECT_NE(said(p.feel).find("26 December"), std::string::npos) << said(p.feel);
    EXPECT_TRUE(p.next.empty());
}

TEST(Stops, OneOfTheCoachsOwnStandsBehindTheChosenOneAndBeforeTheRecap) {
    const Spoken s;
    const Stop own{{"s9"}, StopKind::Correction, "", "Own", 5};
    EXPECT_EQ(withOwnStop(s.review.stops, own, 0)[1].id.value, "s9");
    EXPECT_EQ(withOwnStop(s.review.stops, own, std::nullopt)[2].id.value, "s9");
    EXPECT_EQ(withOwnStop(s.review.stops, own, 0)[1].kind, StopKind::Own);
    // A correction that is added later does not stop at the coach's own.
    const auto more = withStop(s.review.stops, {{"s8"}, StopKind::Correction, "x", "X", 5});
    EXPECT_EQ(more[2].id.value, "s8");
}

} // namespace
} // namespace jg
