// SPDX-License-Identifier: GPL-3.0-or-later
// What helps measuring in the real window: scales, paths, shake, the turn, smears, guesses, free marks.
#include "kinematics/geometry.h"
#include "review/assess/guess.h"
#include "tests/ui/driver.h"
#include "ui/stages/measure/measure_bench.h"

#include <QDialog>
#include <QLineEdit>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(Window, AScaleGivesInchesAndUndoTakesItBack) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto choose = [&](Qt::Key option) {
        d.key(Qt::Key_S);
        auto* dialog = d.window().findChild<QDialog*>("scale");
        ASSERT_TRUE(dialog);
        QTest::keyClick(dialog, option);
    };
    choose(Qt::Key_1); // the athlete's height
    auto* length = d.window().findChild<QDialog*>("length");
    ASSERT_TRUE(length);
    QTest::keyClicks(length->findChild<QLineEdit*>(), "tall");
    QTest::keyClick(length->findChild<QLineEdit*>(), Qt::Key_Return);
    EXPECT_TRUE(d.delivery().scales.empty()); // no length, nothing kept
    d.window().activateWindow();
    choose(Qt::Key_1);
    length = d.window().findChild<QDialog*>("length");
    ASSERT_TRUE(length);
    QTest::keyClicks(length->findChild<QLineEdit*>(), "5 ft 7");
    QTest::keyClick(length->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return d.delivery().scales.contains(ScaleKind::Height); }));
    EXPECT_NEAR(d.delivery().scales.at(ScaleKind::Height).metres, 1.7018, 1e-9);
    d.window().activateWindow();
    choose(Qt::Key_2); // the rubber: from the side its long edge points at the camera
    d.window().activateWindow();
    d.clickPicture({60, 150});
    d.clickPicture({90, 150});
    ASSERT_TRUE(d.delivery().scales.contains(ScaleKind::RubberShort));
    EXPECT_NEAR(d.delivery().scales.at(ScaleKind::RubberShort).to.x, 90, 1);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().scales.contains(ScaleKind::RubberShort));
    choose(Qt::Key_6); // the plate lies too far away
    d.window().activateWindow();
    EXPECT_EQ(d.delivery().scales.size(), 1U);
    choose(Qt::Key_8); // take all away
    ASSERT_TRUE(waitFor([&] { return d.delivery().scales.empty(); }));
}

TEST(Window, LengthsAreSaidInInchesOrCentimetresByChoice) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto release = *d.delivery().frameOf(Moment::Release);
    ASSERT_TRUE(d.review().session().perform(
        asIs("length"),
        {SetScale{ScaleKind::Height, ScaleMark{0, {}, {}, 1.7}},
         SetPoint{{release, Landmark::LeadAnkle}, PointMark{{{500, 400}, 2}, ""}},
         SetPoint{{release, Landmark::Ball}, PointMark{{{560, 250}, 2}, ""}}, SetExtras{{"release-ahead"}}}));
    const auto ahead = [&] { return d.review().session().assessment().measure("release-ahead")->value; };
    const double inches = ahead().value.value();
    EXPECT_EQ(ahead().unit, "in");
    d.key(Qt::Key_S);
    QTest::keyClick(d.window().findChild<QDialog*>("scale"), Qt::Key_7);
    ASSERT_TRUE(waitFor([&] { return ahead().unit == "cm"; }));
    EXPECT_NEAR(ahead().value.value(), inches * 2.54, 1e-6);
    // The choice is the coach's, not the review's: the next window has it too.
    Driver again(walk.library->folder());
    again.window().openReview(walk.submission.id);
    EXPECT_EQ(again.review().session().assessment().measure("release-ahead")->value.unit, "cm");
}

TEST(Window, JointsAreFollowedByOneKeyAndTakenBackByOne) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    ASSERT_TRUE(d.delivery().paths.empty());
    d.key(Qt::Key_P);
    ASSERT_TRUE(waitFor([&] { return !d.delivery().paths.empty(); }, 60000));
    for (const auto& [landmark, path] : d.delivery().paths) {
        EXPECT_GE(path.places.size(), 2U) << info(landmark).id;
        for (const PathPlace& end : path.from)
            EXPECT_EQ(end.at, d.delivery().point(end.frame, landmark)->point.at);
    }
    d.key(Qt::Key_Z);
    EXPECT_TRUE(d.delivery().paths.empty());
}

TEST(Window, TheCamerasShakeIsFoundByOneKeyAndSwitched) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_F);
    ASSERT_TRUE(waitFor([&] { return d.delivery().shake.has_value(); }, 60000));
    EXPECT_TRUE(d.delivery().shake->on);
    EXPECT_EQ(d.delivery().shake->shifts.size(),
              static_cast<std::size_t>(d.review().session().clip().frames));
    d.key(Qt::Key_F);
    EXPECT_FALSE(d.delivery().shake->on);
    d.key(Qt::Key_Z);
    EXPECT_TRUE(d.delivery().shake->on);
}

TEST(Window, TheOrderOfEventsIsShownByOneKey) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_Q);
    auto* chart = d.window().findChild<QDialog*>("sequence");
    ASSERT_TRUE(chart);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(chart));
    QTest::keyClick(chart, Qt::Key_Escape);
    ASSERT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>("sequence"); }));
}

TEST(Window, ASmearedJointIsClickedByBothEndsAndIsLessSure) {
    Walk walk(Stage::Judge);
    const std::int64_t release = *walk.review.first().frameOf(Moment::Release);
    const PointKey key{release, Landmark::BackWrist};
    const ImagePoint was = walk.review.first().points.at(key).point.at;
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform(asIs("clear"), {SetPoint{key, std::nullopt}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(release);
    d.key(Qt::Key_M);
    d.clickPicture({was.x - 12, was.y});
    EXPECT_FALSE(d.delivery().point(release, Landmark::BackWrist)); // one end is not enough
    d.clickPicture({was.x + 12, was.y});
    const PointMark* mark = d.delivery().point(release, Landmark::BackWrist);
    ASSERT_TRUE(mark);
    EXPECT_NEAR(mark->point.at.x, was.x, 1);
    EXPECT_NEAR(mark->point.sigmaPx,
                std::hypot(d.review().session().clickSigmaPx(Landmark::BackWrist), 24 / std::sqrt(12.0)),
                0.5);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().point(release, Landmark::BackWrist));
    d.key(Qt::Key_M);
    d.key(Qt::Key_Escape); // back to plain clicks
    d.clickPicture(was);
    EXPECT_EQ(d.delivery().point(release, Landmark::BackWrist)->point.sigmaPx,
              d.review().session().clickSigmaPx(Landmark::BackWrist));
}

TEST(Window, PointsArePlacedByKeysAlone) {
    Walk walk(Stage::Judge);
    const std::int64_t plant = *walk.review.first().frameOf(Moment::Plant);
    const PointKey knee{plant, Landmark::LeadKnee}, ankle{plant, Landmark::LeadAnkle};
    const ImagePoint was = walk.review.first().points.at(knee).point.at;
    {
        auto session = walk.session();
        ASSERT_TRUE(
            session->perform(asIs("clear"), {SetPoint{knee, std::nullopt}, SetPoint{ankle, std::nullopt}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(plant);
    const auto* bench = d.review().findChild<ui::MeasureBench*>();
    const Landmark first = bench->step()->landmark;
    const ImagePoint from = *startFor(d.delivery(), *bench->step());
    d.key(Qt::Key_C);
    EXPECT_FALSE(d.delivery().point(plant, first)); // a ring is no point
    for (int i = 0; i < 2; ++i) d.key(Qt::Key_Left, Qt::ControlModifier | Qt::ShiftModifier);
    d.key(Qt::Key_Down, Qt::ShiftModifier);
    d.key(Qt::Key_K);
    ASSERT_TRUE(d.delivery().point(plant, first));
    EXPECT_EQ(d.delivery().point(plant, first)->point.at, (ImagePoint{from.x - 20, from.y + 0.5}));
    d.key(Qt::Key_K); // the ring waits for the other joint of this frame
    ASSERT_TRUE(d.delivery().point(plant, Landmark::LeadKnee) &&
                d.delivery().point(plant, Landmark::LeadAnkle));
    d.key(Qt::Key_Escape);
    d.key(Qt::Key_Right, Qt::ShiftModifier); // nudges the point again
    d.key(Qt::Key_Z);
    d.key(Qt::Key_Z);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().point(plant, first));
    EXPECT_GT(length(was - from), 0); // a start, not the answer
}

/// As if nobody had said how the camera stood.
void unsayTurn(Driver& d) {
    ASSERT_TRUE(d.review().session().perform(asIs("unsaid"), {SetTurn{std::nullopt}}));
}

/// Has the camera's turn found by the option `way` of its dialog, from points clicked on the picture.
void findTurn(Driver& d, Qt::Key way, std::initializer_list<ImagePoint> points) {
    d.key(Qt::Key_Y);
    auto* dialog = d.window().findChild<QDialog*>("turn");
    ASSERT_TRUE(dialog);
    QTest::keyClick(dialog, way);
    d.window().activateWindow();
    for (const ImagePoint p : points) d.clickPicture(p);
}

TEST(Window, TheRubbersCornersTellTheCamerasTurn) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    unsayTurn(d);
    d.stepTo(10);
    const auto spread = [&] { return d.review().session().assessment().measure("leg-spread")->value; };
    const double plain = spread().sd;
    // Where the generator's camera, standing square, shows the corners of the rubber at its origin.
    const Camera camera(walk.order.camera);
    const auto corner = [&](double x, double z) { return camera.project({x, 0, z}); };
    findTurn(d, Qt::Key_3, {corner(-0.0762, 0.3048), corner(0.0762, 0.3048), corner(0.0762, -0.3048)});
    ASSERT_TRUE(d.delivery().turn);
    EXPECT_NEAR(d.delivery().turn->deg, walk.order.camera.yawDeg, 2 * d.delivery().turn->sdDeg);
    EXPECT_GT(d.delivery().turn->sdDeg, 0);
    EXPECT_LT(spread().sd, plain); // surer than when nobody has said anything
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().turn);
    findTurn(d, Qt::Key_3, {{60, 150}, {60, 150}, {60, 150}}); // one spot is no rubber
    EXPECT_FALSE(d.delivery().turn);
}

TEST(Window, ACameraSaidToBeSquareWarnsNoMore) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    unsayTurn(d);
    const auto warned = [&] {
        const auto& warnings = d.review().session().assessment().measure("leg-spread")->value.warnings;
        return std::any_of(warnings.begin(), warnings.end(),
                           [](const Message& w) { return w.id == "measure.turn-unsaid"; });
    };
    EXPECT_TRUE(warned());
    findTurn(d, Qt::Key_1, {});
    EXPECT_EQ(d.delivery().turn, std::optional(kSquareTurn));
    EXPECT_FALSE(warned());
    findTurn(d, Qt::Key_2, {}); // not known after all
    EXPECT_FALSE(d.delivery().turn);
    EXPECT_TRUE(warned());
}

TEST(Window, TwoPostsOfOneHeightTellTheCamerasTurn) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    unsayTurn(d);
    d.stepTo(10);
    // Where a camera turned by 15 degrees shows posts of a fence that runs to the plate.
    CameraSettings turned = walk.order.camera;
    turned.yawDeg += 15;
    const Camera camera(turned);
    const auto post = [&](double x, double y) { return camera.project({x, y, -1.5}); };
    findTurn(d, Qt::Key_5, {post(-0.7, 1.6), post(-0.7, 0), post(2.0, 1.6), post(2.0, 0)});
    ASSERT_TRUE(d.delivery().turn);
    EXPECT_NEAR(d.delivery().turn->deg, turned.yawDeg, 2 * d.delivery().turn->sdDeg);
    EXPECT_GT(d.delivery().turn->deg, 4);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.delivery().turn);
    findTurn(d, Qt::Key_5, {{60, 100}, {60, 150}, {60, 100}, {60, 150}}); // one post is not two
    EXPECT_FALSE(d.delivery().turn);
}

TEST(Window, AGuessCountsOnlyWhenItIsTaken) {
    Walk walk(Stage::Judge);
    const std::int64_t plant = *walk.review.first().frameOf(Moment::Plant);
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform(asIs("clear"), {SetPoint{{plant, Landmark::LeadKnee}, std::nullopt}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(plant);
    const auto row = [&] { return d.review().session().assessment().measure("front-knee-plant")->value; };
    EXPECT_FALSE(row().value); // a guess is drawn, and nothing is measured by it
    ASSERT_TRUE(guessFor(d.delivery(), Landmark::LeadKnee, plant));
    const ImagePoint guess = guessFor(d.delivery(), Landmark::LeadKnee, plant)->at;
    d.key(Qt::Key_K);
    ASSERT_TRUE(d.delivery().point(plant, Landmark::LeadKnee));
    EXPECT_EQ(d.delivery().point(plant, Landmark::LeadKnee)->point.at, guess);
    EXPECT_TRUE(row().value);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(row().value);
}

TEST(Window, FreeMarksArePlacedByKeysAndClicks) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(10);
    const std::size_t had = d.delivery().marks.size();
    const struct {
        int key;
        MarkKind kind;
        std::vector<ImagePoint> points;
    } marks[] = {{Qt::Key_2, MarkKind::Level, {{20, 150}, {300, 152}}},
                 {Qt::Key_3, MarkKind::Line, {{30, 30}, {90, 60}}},
                 {Qt::Key_4, MarkKind::HeadBox, {{120, 20}, {150, 50}}},
                 {Qt::Key_5, MarkKind::Angle, {{200, 40}, {230, 80}, {270, 60}}},
                 {Qt::Key_6, MarkKind::Mound, {{60, 150}, {180, 160}}}};
    for (const auto& m : marks) {
        d.key(m.key);
        for (const ImagePoint p : m.points) d.clickPicture(p);
    }
    EXPECT_EQ(d.delivery().marks.size(), had + 5);
    d.key(Qt::Key_Delete); // the last one is selected
    EXPECT_EQ(d.delivery().marks.size(), had + 4);
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.delivery().marks.size(), had + 5);
}

} // namespace
} // namespace jg
