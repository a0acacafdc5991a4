// SPDX-License-Identifier: GPL-3.0-or-later
// Somebody else in the picture is hidden by a box that follows them; by keys and mouse.
#include "desk/session/hide_person.h"
#include "letter/veils.h"
#include "review/tell/send_check.h"
#include "tests/ui/driver.h"
#include "ui/kit/key_cap.h"

namespace jg {
namespace {

using test::Driver;
using test::opened;
using test::waitFor;
using test::Walk;

TEST(HideWindow, ABoxIsDrawnFollowedSetRightAndTakenAway) {
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    d.waitForPicture();
    d.waitForExact();
    const auto foot = [&] { return d.review().findChild<ui::Foot*>()->sentence().toStdString(); };
    d.key(Qt::Key_H, Qt::ShiftModifier);
    EXPECT_NE(foot().find("Nobody is hidden"), std::string::npos);
    const Clip& clip = walk.submission.clips[0];
    const auto draw = [&](double x, double y, double w, double h) {
        d.key(Qt::Key_H);
        d.dragPicture({x * clip.width, y * clip.height}, {(x + w) * clip.width, (y + h) * clip.height});
    };
    draw(0.5, 0.5, 0.001, 0.001);
    EXPECT_NE(foot().find("smaller than a person"), std::string::npos) << foot();
    EXPECT_TRUE(d.delivery().veils.empty());
    draw(0.05, 0.3, 0.12, 0.4);
    ASSERT_TRUE(waitFor([&] { return !d.delivery().veils.empty(); }, 60000)) << foot();
    EXPECT_EQ(d.delivery().veils.begin()->second.drawn.size(), 1U);
    // A box over the same place sets it right; one elsewhere hides somebody else.
    d.key(Qt::Key_Right);
    d.waitForExact();
    draw(0.06, 0.3, 0.12, 0.4);
    ASSERT_TRUE(waitFor([&] { return d.delivery().veils.begin()->second.drawn.size() == 2; }, 60000));
    draw(0.8, 0.3, 0.1, 0.4);
    ASSERT_TRUE(waitFor([&] { return d.delivery().veils.size() == 2; }, 60000));
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.delivery().veils.size(), 1U);
    d.key(Qt::Key_H, Qt::ShiftModifier);
    QDialog* dialog = opened(d, "show-again");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, Qt::Key_1);
    d.settle();
    EXPECT_TRUE(d.delivery().veils.empty());
    // H twice draws nothing.
    d.key(Qt::Key_H);
    d.key(Qt::Key_H);
    d.dragPicture({10, 10}, {90, 200});
    QTest::qWait(50);
    EXPECT_TRUE(d.delivery().veils.empty());
}

TEST(HideWindow, ABoxFarFromWhereTheyWereLostIsStillTheirs) {
    Walk walk(Stage::Send);
    const auto session = walk.session();
    const Veil lost{{{0, {{1, 1}, {50, 90}}}, {20, {{60, 1}, {90, 90}}}}, {0}, {8}};
    ASSERT_TRUE(session->perform({asIs("Hide"), {SetVeil{"veil-1", lost}}, 1}));
    const PictureBox far{{200, 60}, {240, 150}};
    const auto idAt = [&](std::int64_t frame, const PictureBox& box) {
        const auto plan = hidePlan(*session, frame, box);
        return plan ? plan->id : said(plan.error().text);
    };
    EXPECT_EQ(idAt(8, far), "veil-1");  // where it asks
    EXPECT_EQ(idAt(12, far), "veil-1"); // still lost
    EXPECT_EQ(idAt(30, far), "veil-2"); // it was found again: this is somebody else
    EXPECT_EQ(idAt(4, far), "veil-2");
    EXPECT_EQ(idAt(30, {{65, 10}, {85, 80}}), "veil-1"); // over it
    EXPECT_EQ(hidePlan(*session, 8, far)->drawn.size(), 2U);
}

TEST(HideWindow, WhoWasLostHoldsTheLetterBackUntilTheyAreHiddenAgain) {
    Walk walk(Stage::Send);
    const auto session = walk.session();
    const auto problemsWith = [&](std::vector<std::int64_t> asks) {
        Review review = session->review();
        review.first().veils["veil-1"] = {{{0, {{1, 1}, {50, 90}}}}, {0}, std::move(asks)};
        std::string all;
        for (const SendProblem& p :
             checkBeforeSending(review, session->playbook(), session->assessment(), session->athlete(),
                                session->submission(), test::today()))
            if (p.stop) all += said(p.text);
        return all;
    };
    EXPECT_EQ(problemsWith({}).find("lost them"), std::string::npos);
    EXPECT_NE(problemsWith({12}).find("lost them on frame 12"), std::string::npos) << problemsWith({12});
}

} // namespace
} // namespace jg
