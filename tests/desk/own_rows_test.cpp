// SPDX-License-Identifier: GPL-3.0-or-later
// Items, causes and drills of the coach's own: kept in editions, frozen with a review, handed on, taken away.
#include "desk/own/own_rows.h"

#include "coaching/playbook_reader.h"
#include "desk/own/own_approaches.h"
#include "desk/own/own_measures.h"
#include "desk/own/own_playbook.h"
#include "desk/session/begin_judging.h"
#include "tests/support/shelf.h"
#include "tests/support/walk.h"

namespace jg {
namespace {

struct RowShelf : test::Shelf {
    Result<std::string> keep(const PlaybookRow& row, const std::string& key = {}) {
        return keepRow(*library, book, row, key, test::today(), ids);
    }
    Playbook atNextStart() {
        Playbook live = test::playbook();
        EXPECT_TRUE(loadOwnPlaybook(*library, live));
        return live;
    }
};

GradedItem newItem(const std::string& name = "Cap stays straight") {
    GradedItem i = test::playbook().items.front();
    i.id.clear();
    i.name = name;
    return i;
}

TEST(OwnRows, AShippedItemIsSaidOtherwiseAndAgainAsItCame) {
    RowShelf s;
    GradedItem i = *s.book.item("load-shared");
    const std::string came = i.fault;
    i.fault = "The knee works alone";
    ASSERT_TRUE(s.keep(i));
    i.fault = "All in the knee";
    ASSERT_TRUE(s.keep(i, "load-shared"));
    EXPECT_EQ(s.atNextStart().item("load-shared")->fault, "All in the knee");
    const auto own = ownRows(*s.library);
    ASSERT_TRUE(own);
    ASSERT_EQ(own->size(), 2U);
    EXPECT_EQ(own->back().edition, 2);
    EXPECT_EQ(own->back().on, test::today());
    ASSERT_TRUE(removeRow(*s.library, s.book, "load-shared"));
    EXPECT_EQ(s.book.item("load-shared")->fault, came);
    EXPECT_EQ(s.atNextStart().item("load-shared")->fault, came);
}

TEST(OwnRows, ACauseThatWasChangedIsTheSameRowStill) {
    RowShelf s;
    const Cause came = s.book.causes.front();
    Cause changed = came;
    changed.says = "Coach Rowan";
    const std::string key = keyOf(came);
    ASSERT_TRUE(s.keep(changed, key));
    EXPECT_EQ(s.book.causes.size(), test::playbook().causes.size()); // in its place, not beside it
    EXPECT_EQ(keptKeyOf(*ownRows(*s.library), s.book.causes.front()), key);
}

TEST(OwnRows, WhatDoesNotFitIsNotKept) {
    RowShelf s;
    GradedItem bad = newItem();
    bad.parent.clear();
    EXPECT_FALSE(s.keep(bad));
    EXPECT_TRUE(ownRows(*s.library)->empty());
    EXPECT_EQ(s.book.items.size(), test::playbook().items.size());
    ASSERT_TRUE(s.library->put(ListOf::OwnRows, "x 1", "{\"kind\": 3"));
    EXPECT_FALSE(s.keep(newItem())); // nor is what can't be read written over
    EXPECT_EQ(s.library->row(ListOf::OwnRows, "x 1")->value().document, "{\"kind\": 3");
    EXPECT_FALSE(loadOwnRows(*s.library, s.book));
}

TEST(OwnRows, AnItemInUseStays) {
    RowShelf s;
    const std::string key = *s.keep(newItem());
    Approach mine = *s.book.approach(*copyApproach(*s.library, s.book, "load-and-drive", s.ids));
    mine.graded.push_back(key);
    ASSERT_TRUE(keepApproach(*s.library, s.book, mine));
    const Status refused = removeRow(*s.library, s.book, key);
    ASSERT_FALSE(refused);
    EXPECT_NE(said(refused.error().text).find(mine.name), std::string::npos);
    ASSERT_TRUE(removeApproach(*s.library, s.book, mine.id));
    EXPECT_TRUE(removeRow(*s.library, s.book, key));
    EXPECT_FALSE(s.book.item(key));
}

TEST(OwnRows, AnItemMayRestOnAMeasureOfTheCoachs) {
    RowShelf s;
    OwnMeasureOrder order;
    order.name = "Cap lean";
    order.kind = "jointAngle";
    order.landmarks = {Landmark::Head, Landmark::Neck, Landmark::Pelvis};
    order.positions = {Moment::Plant};
    const auto measure = keepOwnMeasure(*s.library, s.book, order);
    ASSERT_TRUE(measure) << said(measure.error().text);
    GradedItem i = newItem();
    i.measure = *measure;
    const auto key = s.keep(i);
    ASSERT_TRUE(key) << said(key.error().text);
    const Playbook live = s.atNextStart();
    EXPECT_EQ(live.item(*key)->measure, *measure);
    EXPECT_TRUE(thawPlaybook(live, *live.text)); // as a review that was begun reads it
}

// A review keeps the words it was begun with.
TEST(OwnRows, ABegunReviewKeepsItsWords) {
    test::Walk walk(Stage::Judge);
    Playbook book = test::playbook();
    GradedItem i = *book.item("load-shared");
    i.fault = "First words";
    ASSERT_TRUE(keepRow(*walk.library, book, i, "load-shared", test::today(), walk.ids));
    const auto judging =
        beginJudging(*walk.library, book, *book.approach("load-and-drive"), walk.athlete, test::today());
    ASSERT_TRUE(judging);
    i.fault = "Second words";
    ASSERT_TRUE(keepRow(*walk.library, book, i, "load-shared", test::today(), walk.ids));
    const auto text = walk.library->playbookText(judging->playbook);
    ASSERT_TRUE(text);
    EXPECT_EQ(thawPlaybook(book, *text)->item("load-shared")->fault, "First words");
    EXPECT_EQ(book.item("load-shared")->fault, "Second words");
}

TEST(OwnRows, AnApproachIsHandedOnWithWhatItGrades) {
    RowShelf s, other;
    const std::string key = *s.keep(newItem());
    Drill drill = s.book.drills.front();
    drill.id.clear();
    drill.name = "Cap walk";
    drill.serves = {key};
    ASSERT_TRUE(s.keep(drill));
    GradedItem aside = newItem("Not part of it");
    ASSERT_TRUE(s.keep(aside));
    Approach mine = *s.book.approach(*copyApproach(*s.library, s.book, "load-and-drive", s.ids));
    mine.graded.push_back(key);
    ASSERT_TRUE(keepApproach(*s.library, s.book, mine));
    const std::string file = *approachFile(*s.library, s.book, *s.book.approach(mine.id));
    EXPECT_EQ(file.find("Not part of it"), std::string::npos);
    const auto read = importApproach(*other.library, other.book, file, test::today(), other.ids);
    ASSERT_TRUE(read) << said(read.error().text);
    EXPECT_EQ(other.book.item(key)->name, "Cap stays straight");
    EXPECT_EQ(other.book.drills.back().name, "Cap walk");
    EXPECT_EQ(other.book.approach(*read)->graded.back(), key);
    // Again: the rows are there as they are and no edition is added.
    ASSERT_TRUE(importApproach(*other.library, other.book, file, test::today(), other.ids));
    EXPECT_EQ(ownRows(*other.library)->size(), 2U);
}

TEST(OwnRows, AFileMayNotChangeWhatCameWithTheProgram) {
    RowShelf s;
    std::string file = *approachFile(*s.library, s.book, *s.book.approach("first-steps"));
    const std::string row =
        R"(,"rows":[{"kind":"item","row":{"id":"load-shared","name":"x","group":"lower","position":"load","views":["open"],"coach":"x","player":"x"}}]})";
    file.replace(file.rfind('}'), 1, row);
    const auto read = importApproach(*s.library, s.book, file, test::today(), s.ids);
    ASSERT_FALSE(read);
    EXPECT_NE(said(read.error().text).find("came with the program"), std::string::npos);
    EXPECT_EQ(s.book.approaches.size(), test::playbook().approaches.size());
    EXPECT_TRUE(ownRows(*s.library)->empty());
}

} // namespace
} // namespace jg
