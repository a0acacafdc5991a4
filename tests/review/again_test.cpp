// SPDX-License-Identifier: GPL-3.0-or-later
// A moment that happens twice: both frames are kept, one counts, the number at the other is told.
#include "review/assess/assess.h"
#include "review/assess/sequence.h"
#include "review/record/positions.h"
#include "review/record/review_json.h"
#include "tests/review/made_review.h"

namespace jg {
namespace {

using test::clip;
using test::playbook;

/// The back foot leaves, comes down, and leaves again.
Review twice() {
    Review r = test::review();
    r.first().moments[Moment::FootTouch] = {150, ""};
    r.first().moments[Moment::Release] = {180, ""};
    r.first().moments[Moment::BackToeOff] = {160, "", {172}};
    r.extras = {"back-foot-off"};
    return r;
}

TEST(Again, TheNumberFollowsOneAndTheOtherIsTold) {
    const Review r = twice();
    const Assessment a = assess(r, playbook(), clip(), Hand::Right);
    const MeasureRow* row = a.measure("back-foot-off");
    ASSERT_TRUE(row && row->value.value);
    EXPECT_NEAR(*row->value.value, 20 / 0.12, 1e-6);
    std::string told;
    for (const Message& w : row->value.warnings) told += said(w) + "\n";
    EXPECT_NE(told.find("again on frame 172; there it is 67 ms"), std::string::npos) << told;
}

TEST(Again, TheOtherCanCountInstead) {
    const MomentMark moved = movedTo({160, "", {172}}, 172);
    EXPECT_EQ(moved.frame, 172);
    EXPECT_EQ(moved.again, std::vector<std::int64_t>{160});
    EXPECT_EQ(movedTo(moved, 150), (MomentMark{150, "", {160}})); // a mere move keeps the other
    EXPECT_EQ(movedTo({std::nullopt, "cut off"}, 9), (MomentMark{9, ""}));
}

TEST(Again, ItIsAddedTakenAwayAndRefusedInWords) {
    const DeliveryMarks d = twice().first();
    EXPECT_EQ(happeningAgain(d, Moment::BackToeOff, 176, 300)->again, (std::vector<std::int64_t>{172, 176}));
    EXPECT_TRUE(happeningAgain(d, Moment::BackToeOff, 172, 300)->again.empty());
    const auto refuses = [&](Moment moment, std::int64_t frame, const char* says) {
        const auto mark = happeningAgain(d, moment, frame, 300);
        ASSERT_FALSE(mark) << says;
        EXPECT_NE(said(mark.error().text).find(says), std::string::npos) << said(mark.error().text);
    };
    refuses(Moment::Plant, 170, "not set yet");
    refuses(Moment::BackToeOff, 160, "counts there");
    refuses(Moment::BackToeOff, 300, "no frame 300");
    EXPECT_FALSE(mayCut(d, {140, 171})); // its second time would lie outside
    EXPECT_TRUE(mayCut(d, {140, 190}));
}

TEST(Again, ItIsReadAsItWasWritten) {
    const Review r = twice();
    const auto read = reviewFromJson(toJson(r));
    ASSERT_TRUE(read);
    EXPECT_EQ(read->first().moments.at(Moment::BackToeOff).again, std::vector<std::int64_t>{172});
}

TEST(Again, BothStandInTheOrderOfEvents) {
    Review r = twice();
    r.first().moments[Moment::Plant] = {152, "", {158}};
    const auto events = sequenceOf(r.first(), clip(), Hand::Right);
    ASSERT_EQ(events.size(), 4U);
    EXPECT_EQ(events[2].frame, 158);
    EXPECT_TRUE(events[2].again);
    EXPECT_FALSE(events[2].outOfOrder);
}

} // namespace
} // namespace jg
