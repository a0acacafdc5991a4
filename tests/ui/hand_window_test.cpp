// SPDX-License-Identifier: GPL-3.0-or-later
// The own-error exercise in the real window, by clicks.
#include "tests/ui/driver.h"

#include "ui/places/hand/own_error_place.h"

#include <QPushButton>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

ui::OwnErrorPlace& placeOf(Driver& d) {
    return *d.window().findChild<ui::OwnErrorPlace*>();
}

/// Clicks what is asked for: the truth, or three places on an own frame, beside it by `off` at 720 lines,
/// left and right.
void clickOn(Driver& d, double off) {
    ui::OwnErrorPlace& place = placeOf(d);
    int n = 0;
    while (const auto asked = place.asked()) {
        const ErrorPicture& p = place.exercise().pictures[asked->showing.picture].what;
        ImagePoint at = p.truth ? (*p.truth)[asked->joint]
                                : ImagePoint{40.0 + 60 * static_cast<double>(asked->joint),
                                             60 + 30 * static_cast<double>(asked->joint % 2)};
        at.x += (++n % 2 == 0 ? off : -off) * p.heightPx / kErrorHeightPx;
        d.click(&place.stage(), place.stage().transform().toView(at).toPoint());
        ASSERT_LT(n, 100);
    }
}

TEST(Window, TheOwnErrorExerciseGivesAnErrorThatNewPointsCarry) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    d.key(Qt::Key_H, Qt::AltModifier);
    ui::OwnErrorPlace& place = placeOf(d);
    EXPECT_EQ(place.inShort(), "error not measured");
    d.click(d.button(&place, "Begin the exercise"));
    ASSERT_TRUE(waitFor([&] { return place.asked().has_value(); }, 300000));
    const auto& exercise = place.exercise();
    EXPECT_GE(exercise.pictures.size(), 6U);
    ASSERT_EQ(exercise.order.size(), 2 * exercise.pictures.size());
    for (std::size_t i = 1; i < exercise.order.size(); ++i) // never twice in a row
        EXPECT_NE(exercise.order[i].picture, exercise.order[i - 1].picture);
    clickOn(d, 4);
    auto runs = errorRuns(d.window().library());
    ASSERT_TRUE(runs);
    ASSERT_EQ(runs->size(), 1U);
    const double sd = ownErrorOf(runs->front()).sdPx;
    EXPECT_GT(sd, 2);
    EXPECT_LT(sd, 4);
    EXPECT_EQ(place.inShort(), QString("clicks within %1 px").arg(sd, 0, 'f', 1));
    // A new point in a review carries it, scaled to its film.
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    const double expected = clickSigmaPx(*runs, d.window().library().setting("house.coach"),
                                         Landmark::LeadKnee, d.review().session().clip().height);
    EXPECT_NEAR(d.review().session().clickSigmaPx(Landmark::LeadKnee), expected, 1e-12);
}

TEST(Window, AStoppedExerciseKeepsNothing) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    d.key(Qt::Key_H, Qt::AltModifier);
    ui::OwnErrorPlace& place = placeOf(d);
    d.click(d.button(&place, "Begin the exercise"));
    ASSERT_TRUE(waitFor([&] { return place.asked().has_value(); }, 300000));
    d.click(&place.stage(), place.stage().rect().center());
    QTest::keyClick(&place, Qt::Key_Escape);
    EXPECT_FALSE(place.asked());
    EXPECT_TRUE(errorRuns(d.window().library())->empty());
}

} // namespace
} // namespace jg
