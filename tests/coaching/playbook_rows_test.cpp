// SPDX-License-Identifier: GPL-3.0-or-later
// Rows of the playbook one by one: as JSON, checked, and joined.
#include "coaching/playbook_rows.h"

#include "coaching/playbook_reader.h"
#include "coaching/with_rows.h"
#include "tests/support/core.h"

namespace jg {
namespace {

GradedItem ownItem() {
    GradedItem i = test::playbook().items.front();
    i.id = "own-item-1";
    i.name = "Cap stays straight";
    i.fault = "Cap flies off";
    i.goal = "Keep the cap on";
    return i;
}

TEST(PlaybookRows, EachShippedRowIsReadAsItWasWritten) {
    const Playbook& p = test::playbook();
    const auto same = [](const PlaybookRow& row) {
        return rowAsJson(rowFromJson(rowAsJson(row))) == rowAsJson(row) &&
               keyOf(rowFromJson(rowAsJson(row))) == keyOf(row);
    };
    for (const GradedItem& row : p.items) EXPECT_TRUE(same(row)) << row.id;
    for (const Cause& row : p.causes) EXPECT_TRUE(same(row)) << row.from;
    for (const Drill& row : p.drills) EXPECT_TRUE(same(row)) << row.id;
}

TEST(PlaybookRows, EachShippedRowStandsTheCheckOfACoachsOwn) {
    const Playbook& p = test::playbook();
    const auto fits = [&](const PlaybookRow& row) {
        const Status fit = checkRow(p, row);
        EXPECT_TRUE(fit) << said(fit.error().text);
    };
    for (const GradedItem& row : p.items) fits(row);
    for (const Cause& row : p.causes) fits(row);
    for (const Drill& row : p.drills) fits(row);
}

/// The reason a row is refused for, or "kept".
std::string refusal(const PlaybookRow& row) {
    const Status fit = checkRow(test::playbook(), row);
    return fit ? "kept" : said(fit.error().text);
}

TEST(PlaybookRows, AnItemNeedsAllItsWords) {
    EXPECT_EQ(refusal(ownItem()), "kept");
    const std::pair<std::string GradedItem::*, const char*> fields[] = {
        {&GradedItem::name, "no name"},       {&GradedItem::fault, "when it is wrong"},
        {&GradedItem::goal, "correction"},    {&GradedItem::coach, "for the coach"},
        {&GradedItem::young, "under 12"},     {&GradedItem::player, "cue for a player"},
        {&GradedItem::parent, "for a parent"}};
    for (const auto& [field, says] : fields) {
        GradedItem bad = ownItem();
        bad.*field = "  ";
        EXPECT_NE(refusal(bad).find(says), std::string::npos) << refusal(bad);
    }
    GradedItem bad = ownItem();
    bad.fault = bad.name; // a correction would read as praise
    EXPECT_NE(refusal(bad).find("other words"), std::string::npos);
    bad = ownItem();
    bad.views.clear();
    EXPECT_NE(refusal(bad).find("which side"), std::string::npos);
    bad = ownItem();
    bad.measure = "nothing";
    EXPECT_NE(refusal(bad).find("nothing"), std::string::npos);
    bad = ownItem();
    bad.name = test::playbook().items.front().name;
    EXPECT_NE(refusal(bad).find("of that name"), std::string::npos);
}

TEST(PlaybookRows, ADrillNeedsItsDoseAndACauseItsOwner) {
    Drill drill = test::playbook().drills.front();
    drill.dose.days = 0;
    EXPECT_NE(refusal(drill).find("dose"), std::string::npos);
    drill = test::playbook().drills.front();
    drill.serves.clear();
    EXPECT_NE(refusal(drill).find("serves no finding"), std::string::npos);
    drill.serves = {"nothing"};
    EXPECT_NE(refusal(drill).find("nothing"), std::string::npos);
    Cause cause = test::playbook().causes.front();
    cause.says.clear();
    EXPECT_NE(refusal(cause).find("whose opinion"), std::string::npos);
    cause = test::playbook().causes.front();
    cause.to = cause.from;
    EXPECT_NE(refusal(cause).find("its own cause"), std::string::npos);
}

TEST(PlaybookRows, JoinedRowsChangeOrAddAndAreInTheTextAReviewKeeps) {
    const Playbook& p = test::playbook();
    GradedItem changed = p.items[3];
    changed.fault = "Said otherwise";
    Cause cause{changed.id, "own-item-1", "Coach Rowan", "timing", "It was seen so."};
    const auto joined =
        withRows(p, {{changed.id, changed}, {"own-item-1", ownItem()}, {keyOf(cause), cause}});
    ASSERT_TRUE(joined) << said(joined.error().text);
    EXPECT_EQ(joined->items.size(), p.items.size() + 1);
    EXPECT_EQ(joined->item(changed.id)->fault, "Said otherwise");
    EXPECT_EQ(joined->causes.size(), p.causes.size() + 1);
    EXPECT_EQ(joined->approaches.size(), p.approaches.size());
    const auto thawed = thawPlaybook(p, *joined->text);
    ASSERT_TRUE(thawed) << said(thawed.error().text);
    EXPECT_EQ(thawed->item("own-item-1")->goal, "Keep the cap on");
    const auto back = withRows(*joined, {}); // as it came with the program
    ASSERT_TRUE(back);
    EXPECT_EQ(back->items.size(), p.items.size());
    EXPECT_EQ(back->item(changed.id)->fault, p.items[3].fault);
}

TEST(PlaybookRows, WhatAnEditionChangedIsNamed) {
    GradedItem changed = ownItem();
    EXPECT_TRUE(changedFields(ownItem(), changed).empty());
    changed.goal = "Hold the cap";
    changed.measure = "back-knee"; // not there before
    EXPECT_EQ(changedFields(ownItem(), changed), (std::vector<std::string>{"goal", "measure"}));
}

TEST(PlaybookRows, AnItemThatAnApproachStillGradesIsMissed) {
    Playbook p = *withRows(test::playbook(), {{"own-item-1", ownItem()}});
    p.approaches.front().graded.push_back("own-item-1");
    EXPECT_FALSE(withRows(p, {}));
}

} // namespace
} // namespace jg
