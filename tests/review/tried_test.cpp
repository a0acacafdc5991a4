// SPDX-License-Identifier: GPL-3.0-or-later
// How the measures' intervals did where the truth was known, as it is read and told.
#include "coaching/playbook.h"
#include "review/record/tried.h"
#include "tests/review/made_review.h"

#include <set>

namespace jg {
namespace {

TEST(Trials, ComeBackAsTheyWereWritten) {
    Trials made;
    made.set({true, false}, "stride", {812, 88.44, -0.613, 0.25, "%"});
    made.set({false, true}, "stride", {900, 96, 0, 0, "%"});
    const auto read = Trials::parse(made.toJson());
    ASSERT_TRUE(read) << said(read.error().text);
    const Trial* turned = read->of({true, false}, "stride");
    ASSERT_NE(turned, nullptr);
    EXPECT_EQ(turned->tried, 812);
    EXPECT_NEAR(turned->heldPercent, 88.4, 1e-9);
    EXPECT_NEAR(turned->leastLean, -0.61, 1e-9);
    EXPECT_NEAR(turned->mostLean, 0.25, 1e-9);
    EXPECT_FALSE(turned->keepsItsPromise());
    EXPECT_TRUE(read->of({false, true}, "stride")->keepsItsPromise());
    EXPECT_EQ(read->of({true, true}, "stride"), nullptr);
    EXPECT_EQ(made.toJson(), read->toJson());
    made.set({true, true}, "back-knee", {700, 97, 0.1, 0.1, "deg", -9.2});
    EXPECT_NEAR(Trials::parse(made.toJson())->of({true, true}, "back-knee")->inSpace, -9.2, 1e-9);
    EXPECT_NE(
        said(trialInWords(*made.of({true, true}, "back-knee"))).find("In space about 9.2\u00b0 smaller"),
        std::string::npos);
}

TEST(Trials, ABrokenTableNamesItsRow) {
    const std::string empty = R"("square-slow": {}, "square-fast": {}, "turned-slow": {})";
    for (const char* row :
         {R"([0, 95, 0, 0, "%"])", R"([10, 120, 0, 0, "%"])", R"([10, 95, 1, 0, "%"])", R"(["x"])", "7"}) {
        const auto read = Trials::parse("{" + empty + R"(, "turned-fast": {"stride": )" + row + "}}");
        ASSERT_FALSE(read) << row;
        EXPECT_NE(said(read.error().text).find("turned-fast, stride"), std::string::npos)
            << said(read.error().text);
    }
    EXPECT_FALSE(Trials::parse("{"));
    EXPECT_FALSE(Trials::parse("{}"));
}

/// What a film from most places can't show has too few numbers to tell a share.
TEST(Trials, TheShippedTableKnowsNearlyEveryMeasureThatTheApproachesAskForByPoints) {
    const Playbook& book = test::playbook();
    std::set<std::string> tried, untried;
    for (const Approach& approach : book.approaches)
        for (const Target& target : approach.targets) {
            const MeasureDefinition* m = book.measure(target.measure);
            ASSERT_NE(m, nullptr);
            if (m->hasPoints() && m->kind != MeasureKind::Seen)
                (book.trials.of({false, true}, m->id) ? tried : untried).insert(m->id);
        }
    EXPECT_GT(tried.size(), 30U);
    EXPECT_LE(untried.size(), 4U) << *untried.begin();
}

TEST(Trials, TellOfTheCameraAtHandAndOfNoneThatNobodySpokeOf) {
    Playbook book = test::playbook();
    book.trials = {};
    book.trials.set({false, true}, "stride", {900, 96.4, -0.2, 0.2, "%"});
    book.trials.set({true, true}, "stride", {900, 71.6, -1.26, -1.26, "%"});
    Clip clip = test::clip(); // 120 a second
    DeliveryMarks marks;
    EXPECT_EQ(trialOf(book, "stride", marks, clip.captureFps), nullptr);
    marks.turn = kSquareTurn;
    ASSERT_NE(trialOf(book, "stride", marks, clip.captureFps), nullptr);
    EXPECT_EQ(said(trialInWords(*trialOf(book, "stride", marks, clip.captureFps))),
              "On made bodies such an error was right 96 times in 100.");
    marks.turn = CameraTurn{-12, 3};
    EXPECT_EQ(said(trialInWords(*trialOf(book, "stride", marks, clip.captureFps))),
              "Less sure than it says: on made bodies such an error was right only 72 times in 100. It read "
              "1.3 % low.");
    clip.captureFps = 60;
    EXPECT_EQ(trialOf(book, "stride", marks, clip.captureFps), nullptr);
    clip.captureFps = 0;
    EXPECT_EQ(trialOf(book, "stride", marks, clip.captureFps), nullptr);
}

TEST(Trials, ALeanIsToldWhereItShowsAndToBothSidesWhereBodiesDiffer) {
    const auto told = [](double least, double most, const char* unit) {
        return said(trialInWords({900, 96, least, most, unit}));
    };
    const std::string held = "On made bodies such an error was right 96 times in 100.";
    EXPECT_EQ(told(-0.4, 0.4, "deg"), held);
    EXPECT_EQ(told(-2.6, -1.2, "deg"), held + " It read 1.2 to 2.6\u00b0 low.");
    EXPECT_EQ(told(0, 3, "%"), held + " It read 0.0 to 3.0 % high.");
    EXPECT_EQ(told(-2, 1.5, "deg"), held + " It read up to 2.0\u00b0 low or 1.5\u00b0 high.");
    EXPECT_EQ(told(0.08, 0.08, "x"), held + " It read 0.1 high.");
    EXPECT_FALSE((Trial{900, 96, -0.04, 0.04, "x"}.leans()));
    EXPECT_EQ(said(leanInShort({900, 96, -2, 1.5, "deg", -9})),
              "On made bodies up to 2.0\u00b0 low or 1.5\u00b0 high, in space 9.0\u00b0 smaller.");
    EXPECT_TRUE(leanInShort({900, 96, -0.2, 0.2, "deg"}).empty());
}

} // namespace
} // namespace jg
