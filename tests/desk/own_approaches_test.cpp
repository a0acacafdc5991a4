// SPDX-License-Identifier: GPL-3.0-or-later
// Approaches of the coach's own: copied, changed in editions, handed on as files, refused when broken.
#include "desk/own/own_approaches.h"

#include "desk/session/begin_judging.h"
#include "review/record/review_json.h"
#include "tests/support/shelf.h"
#include "tests/support/walk.h"

#include <algorithm>

namespace jg {
namespace {

struct OwnShelf : test::Shelf {
    std::string copy(const char* of = "load-and-drive") { return *copyApproach(*library, book, of, ids); }
};

TEST(OwnApproaches, ACopyIsChangedEditionByEdition) {
    OwnShelf s;
    const std::string id = s.copy();
    Approach a = *s.book.approach(id);
    EXPECT_EQ(a.name, "Copy of Load and drive");
    EXPECT_EQ(a.version, 1);
    EXPECT_EQ(a.basedOn, "Load and drive, " + std::to_string(s.book.approach("load-and-drive")->version));
    for (Target& t : a.targets)
        if (t.measure == "leg-spread") t.x = 110;
    ASSERT_TRUE(keepApproach(*s.library, s.book, a));
    EXPECT_EQ(s.book.approach(id)->version, 2);
    EXPECT_EQ(s.book.approach(id)->targetOf("leg-spread")->x, 110);
    EXPECT_EQ(s.book.approach("load-and-drive")->targetOf("leg-spread")->x, 106);
    const auto editions = editionsOf(*s.library, id);
    ASSERT_TRUE(editions);
    EXPECT_EQ(editions->size(), 2U);
    Playbook again = test::playbook(); // the next start
    ASSERT_TRUE(loadOwnApproaches(*s.library, again));
    EXPECT_EQ(*again.approach(id), *s.book.approach(id));
    ASSERT_TRUE(removeApproach(*s.library, s.book, id));
    EXPECT_FALSE(s.book.approach(id));
    EXPECT_TRUE(editionsOf(*s.library, id)->empty());
}

TEST(OwnApproaches, WhatCameWithTheProgramIsNotChanged) {
    OwnShelf s;
    EXPECT_FALSE(keepApproach(*s.library, s.book, *s.book.approach("first-steps")));
    EXPECT_FALSE(removeApproach(*s.library, s.book, "first-steps"));
    EXPECT_TRUE(s.book.approach("first-steps"));
    EXPECT_FALSE(copyApproach(*s.library, s.book, "nothing", s.ids));
}

TEST(OwnApproaches, AChangeThatDoesNotFitIsRefusedAndNothingIsKept) {
    OwnShelf s;
    const std::string id = s.copy();
    const Approach good = *s.book.approach(id);
    const auto refuses = [&](const std::function<void(Approach&)>& how, const char* says) {
        Approach bad = good;
        how(bad);
        const Status kept = keepApproach(*s.library, s.book, bad);
        EXPECT_FALSE(kept) << says;
        if (!kept) {
            EXPECT_NE(said(kept.error().text).find(says), std::string::npos) << said(kept.error().text);
        }
        EXPECT_EQ(*s.book.approach(id), good);
    };
    refuses([](Approach& a) { a.graded.push_back("nothing"); }, "nothing");
    refuses([](Approach& a) { a.targets[0].measure = "nothing"; }, "nothing");
    refuses([](Approach& a) { a.targets[0].position = Moment::Finish; }, "Finish");
    refuses([](Approach& a) { a.name = "First steps"; }, "First steps");
    refuses([](Approach& a) { a.name = ""; }, "empty");
    EXPECT_EQ(editionsOf(*s.library, id)->size(), 1U);
}

// What is judged by an approach and by its copy is the same; so is one that went through a file.
TEST(OwnApproaches, ACopyAndAFileJudgeAsTheirOriginal) {
    test::Walk walk(Stage::Judge);
    Playbook book = test::playbook();
    const auto session = walk.session();
    for (const Approach& shipped : test::playbook().approaches) {
        const auto copied = copyApproach(*walk.library, book, shipped.id, walk.ids);
        ASSERT_TRUE(copied);
        const auto read = importApproach(*walk.library, book, *approachFile(*walk.library, book, shipped),
                                         test::today(), walk.ids);
        ASSERT_TRUE(read) << said(read.error().text);
        const Assessment a = session->assessedBy(shipped);
        for (const std::string& id : {*copied, *read}) {
            const Assessment b = session->assessedBy(*book.approach(id));
            ASSERT_EQ(a.measures.size(), b.measures.size());
            for (std::size_t i = 0; i < a.measures.size(); ++i) {
                EXPECT_EQ(a.measures[i].judgement.verdict, b.measures[i].judgement.verdict)
                    << a.measures[i].id;
                EXPECT_EQ(said(a.measures[i].judgement.text), said(b.measures[i].judgement.text));
            }
        }
    }
}

TEST(OwnApproaches, ABrokenFileIsRefusedWithLineAndReason) {
    OwnShelf s;
    const std::string good = *approachFile(*s.library, s.book, *s.book.approach("first-steps"));
    const auto refuses = [&](const std::string& text, const std::string& says) {
        const auto read = importApproach(*s.library, s.book, text, test::today(), s.ids);
        EXPECT_FALSE(read) << says;
        if (!read) {
            EXPECT_NE(said(read.error().text).find(says), std::string::npos) << said(read.error().text);
        }
        EXPECT_EQ(s.book.approaches.size(), test::playbook().approaches.size());
    };
    refuses("", "line 1");
    refuses("{}", "no approach");
    refuses("[1, 2]", "no approach");
    refuses(good.substr(0, good.size() / 2), "line ");
    std::string three = good;
    three.insert(three.find('\n', three.find('\n') + 1) + 1, "  oops\n");
    refuses(three, "line 3");
    std::string unknown = good;
    unknown.replace(unknown.find("\"forward-down\""), std::string("\"forward-down\"").size(), "\"sideways\"");
    refuses(unknown, "sideways");
    std::string huge = good;
    huge.insert(1, std::string(2 << 20, ' '));
    refuses(huge, "too large");
    std::string ages = good;
    ages.replace(ages.find("\"ages\""), 6, "\"agez\"");
    refuses(ages, "ages");
}

TEST(OwnApproaches, TwoOfOneNameAreToldApart) {
    OwnShelf s;
    s.copy();
    const std::string second = s.copy();
    EXPECT_EQ(s.book.approach(second)->name, "Copy of Load and drive 2");
}

// An athlete's own approach and targets count in each new review, and the review keeps them.
TEST(OwnApproaches, AnAthletesOwnTargetsAreFrozenWithTheReview) {
    test::Walk walk(Stage::Judge);
    walk.athlete.approach = "first-steps";
    Target own = *test::playbook().approach("first-steps")->targetOf("elbow-height");
    own.y = 12;
    own.owner = TargetOwner{"Ilse Varnholt", test::today(), "a broken collarbone"};
    walk.athlete.targets = {own};
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    const auto back = walk.library->athlete(walk.athlete.id);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->targets, walk.athlete.targets);
    const auto judging = beginJudging(*walk.library, test::playbook(), *approachFor(test::playbook(), *back),
                                      *back, test::today());
    ASSERT_TRUE(judging);
    EXPECT_EQ(judging->approach.id, "first-steps");
    EXPECT_EQ(*judging->approach.targetOf("elbow-height"), own);
    EXPECT_EQ(judging->age, 15);
}

TEST(OwnApproaches, AReviewIsJudgedByAnotherAndBack) {
    test::Walk walk(Stage::Judge);
    const auto session = walk.session();
    const auto grades = session->review().judging().grades;
    ASSERT_FALSE(grades.empty());
    ASSERT_TRUE(session->judgeBy("tall-and-closed"));
    EXPECT_EQ(session->review().approach().id, "tall-and-closed");
    EXPECT_EQ(session->review().judging().grades, grades);
    EXPECT_TRUE(session->assessment().measure("head-drop"));
    ASSERT_TRUE(session->undo());
    EXPECT_EQ(session->review().approach().id, "load-and-drive");
    ASSERT_TRUE(session->judgeBy("load-and-drive", test::playbook().focus("front-leg")));
    EXPECT_EQ(session->review().approach().name, "Load and drive: front leg only");
    EXPECT_FALSE(session->assessment().measure("elbow-height"));
    EXPECT_FALSE(session->judgeBy("nothing"));
    Target t = *test::playbook().approach("stretch-and-sequence")->targetOf("release-ahead");
    ASSERT_TRUE(session->setTarget("release-ahead", t, true));
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->targets.size(), 1U);
    ASSERT_TRUE(session->setTarget("release-ahead", std::nullopt, true));
    EXPECT_TRUE(walk.library->athlete(walk.athlete.id)->targets.empty());
}

TEST(OwnApproaches, ATargetForThisReviewComesBackWithItsRow) {
    test::Walk walk(Stage::Judge);
    const auto session = walk.session();
    Target own = *session->review().approach().targetOf("elbow-height");
    own.y = 12;
    ASSERT_TRUE(session->setTarget("elbow-height", own));
    const auto asked = [&] {
        const Target* t = session->review().approach().targetOf("elbow-height");
        return t ? std::optional(t->y) : std::nullopt;
    };
    ASSERT_TRUE(session->judgeBy("load-and-drive", test::playbook().focus("front-leg")));
    EXPECT_FALSE(asked()); // outside the focus it is not asked
    ASSERT_TRUE(session->judgeBy("load-and-drive"));
    EXPECT_EQ(asked(), 12);
    ASSERT_TRUE(session->judgeBy("tall-and-closed"));
    EXPECT_EQ(asked(), 12);
    ASSERT_TRUE(session->judgeBy("load-and-drive"));
    EXPECT_EQ(asked(), 12);
    ASSERT_TRUE(session->judgeBy("load-and-drive", test::playbook().focus("direction")));
    ASSERT_TRUE(session->judgeBy("load-and-drive"));
    EXPECT_FALSE(session->review().approach().targetOf("body-path")); // the focus brought it, nobody set it
    const auto back = reviewFromJson(toJson(session->review()));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->judging(), session->review().judging());
}

} // namespace
} // namespace jg
