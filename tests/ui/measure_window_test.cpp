// Measuring in the real window: points, answers, the catalogue, free marks.
#include "tests/ui/driver.h"

#include "ui/row_list.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <set>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(Window, ADraggedPointMovesEveryNumberAndUndoBringsThemBack) {
    Walk walk(Stage::Judge, Hand::Left);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto plant = *d.document().frameOf(Moment::Plant);
    d.stepTo(plant);
    const auto values = [&] {
        std::map<std::string, double> v;
        for (const MeasureRow& m : d.review().session().assessment().measures)
            if (m.value.value) v[m.id] = *m.value.value;
        return v;
    };
    const auto before = values();
    const ImagePoint ankle = d.document().point(plant, Landmark::LeadAnkle)->point.at;
    d.dragPicture(ankle, {ankle.x - 14, ankle.y - 3});
    const auto after = values();
    for (const char* id : {"leg-spread", "front-knee-plant", "stride", "front-knee-change"})
        EXPECT_GT(std::abs(after.at(id) - before.at(id)), 0.2) << id;
    EXPECT_EQ(after.at("elbow-bend"), before.at("elbow-bend"));
    d.key(Qt::Key_Z); // one drag, one step
    EXPECT_EQ(values(), before);
    d.key(Qt::Key_Left, Qt::ShiftModifier); // a nudge of half a pixel
    const ImagePoint nudged = d.document().point(plant, Landmark::LeadAnkle)->point.at;
    EXPECT_NEAR(nudged.x, ankle.x - 0.5, 1e-9);
}

/// Places every point asked for where it truly is; returns the clicks.
int clickAllPoints(Driver& d, const FilmOrder& order) {
    const Delivery delivery(order.knobs);
    int clicks = 0;
    for (; clicks < 300; ++clicks) {
        auto* bench = qobject_cast<ui::MeasureBench*>(d.review().bench());
        if (!bench || !bench->step()) break;
        const GuideStep step = *bench->step();
        if (step.frame != d.review().playhead().frame()) d.key(Qt::Key_Return);
        d.waitForPicture();
        const Pose pose = delivery.poseAt(delivery.startS() + static_cast<double>(step.frame) / order.fps);
        d.clickPicture(projectJoints(order, pose).at(step.landmark));
    }
    return clicks;
}

std::map<std::string, double> numbersOf(Driver& d) {
    std::map<std::string, double> numbers;
    for (const MeasureRow& m : d.review().session().assessment().measures)
        if (m.value.value) numbers[m.id] = *m.value.value;
    return numbers;
}

TEST(Window, FortyNumbersComeFromTheCatalogueByKeysAndClicks) {
    Walk walk(Stage::Positions);
    {
        auto session = walk.session(); // the positions stay, the points are all to be clicked
        Edit clear{"clear", {}};
        for (const auto& [key, mark] : walk.review.points)
            clear.changes.push_back(SetPoint{key, std::nullopt});
        ASSERT_TRUE(session->perform(clear));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    d.key(Qt::Key_A);
    auto* picker = d.window().findChild<QDialog*>("measure-picker");
    ASSERT_TRUE(picker);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(picker));
    // What the approach sets can't be taken away; what this side can't show can't be taken.
    EXPECT_FALSE(picker->findChild<QCheckBox*>("back-knee")->isEnabled());
    EXPECT_FALSE(picker->findChild<QCheckBox*>("trunk-side")->isEnabled());
    d.click(d.button(picker, "Tick all this view shows"));
    d.click(d.button(picker, "Take these"));
    ASSERT_TRUE(waitFor([&] { return !d.document().extras.empty(); }));
    d.window().activateWindow();
    ASSERT_TRUE(d.document().points.empty());
    const int clicks = clickAllPoints(d, walk.order);
    const auto before = numbersOf(d);
    EXPECT_GE(before.size(), 40U);
    RecordProperty("numbers", static_cast<int>(before.size()));
    RecordProperty("clicks", clicks);
    // One shared point: the back ankle at plant.
    const std::int64_t plant = *d.document().frameOf(Moment::Plant);
    d.stepTo(plant);
    const ImagePoint at = d.document().point(plant, Landmark::BackAnkle)->point.at;
    d.dragPicture(at, {at.x - 14, at.y});
    const auto after = numbersOf(d);
    for (const char* id : {"leg-spread", "stride", "back-leg-lean", "stretch-angle"})
        EXPECT_NE(after.at(id), before.at(id)) << id;
    EXPECT_EQ(after.at("trunk-forward"), before.at("trunk-forward"));
    d.key(Qt::Key_Z);
    EXPECT_EQ(numbersOf(d), before);
}

TEST(Window, AMeasureWithoutPointsIsAnsweredByItsKey) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform({"take", {SetExtras{{"landing-part", "spin"}}}}));
    }
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    const auto row = [&](const std::string& id) { return *d.review().session().assessment().measure(id); };
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto count = static_cast<int>(d.review().session().assessment().measures.size());
    list->setCurrent(count - 2);
    d.key(Qt::Key_U);
    auto* choice = d.window().findChild<QDialog*>("seen");
    ASSERT_TRUE(choice);
    QTest::keyClick(choice, Qt::Key_2);
    ASSERT_TRUE(waitFor([&] { return row("landing-part").value.words == "heel"; }));
    d.window().activateWindow();
    list->setCurrent(count - 1);
    const std::int64_t release = *d.document().frameOf(Moment::Release);
    d.stepTo(release + 4);
    d.key(Qt::Key_U);
    EXPECT_EQ(d.document().frameOf(Moment::BallAway), release + 4);
    d.key(Qt::Key_U);
    auto* number = d.window().findChild<QDialog*>("number");
    ASSERT_TRUE(number);
    QTest::keyClicks(number->findChild<QLineEdit*>(), "1.5");
    QTest::keyClick(number->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return row("spin").value.value.has_value(); }));
    EXPECT_NEAR(*row("spin").value.value, 60 * 60 * 1.5 / 4, 1e-9);
    d.window().activateWindow();
    d.key(Qt::Key_Z);
    EXPECT_FALSE(row("spin").value.value);
}

TEST(Window, TheGoalOfTheChosenMeasureIsDrawnAndFollowsADraggedPoint) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto& rows = d.review().session().assessment().measures;
    const auto spread =
        std::find_if(rows.begin(), rows.end(), [](const MeasureRow& r) { return r.id == "leg-spread"; }) -
        rows.begin();
    const std::int64_t plant = *d.document().frameOf(Moment::Plant);
    // Short of the target whatever the film shows: the lead ankle is drawn back.
    d.stepTo(plant);
    const ImagePoint at = d.document().point(plant, Landmark::LeadAnkle)->point.at,
                     back = d.document().point(plant, Landmark::BackAnkle)->point.at;
    const ImagePoint nearer{at.x + (back.x - at.x) * 0.3, at.y};
    d.dragPicture(at, nearer);
    list->setCurrent(0);
    list->move(static_cast<int>(spread));
    ASSERT_TRUE(waitFor([&] { return d.review().stage().scene().ghost.has_value(); }));
    const auto before = *d.review().stage().scene().ghost;
    EXPECT_EQ(before.label.text, "106\u00b0");
    d.dragPicture(nearer, {nearer.x, nearer.y - 6});
    ASSERT_TRUE(d.review().stage().scene().ghost.has_value());
    EXPECT_NE(d.review().stage().scene().ghost->joints, before.joints);
    d.key(Qt::Key_G);
    EXPECT_FALSE(d.review().stage().scene().ghost.has_value());
    d.key(Qt::Key_G);
    EXPECT_TRUE(d.review().stage().scene().ghost.has_value());
    d.stepTo(plant + 1); // it belongs to its own frame
    EXPECT_FALSE(d.review().stage().scene().ghost.has_value());
}

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
    EXPECT_TRUE(d.document().scales.empty()); // no length, nothing kept
    d.window().activateWindow();
    choose(Qt::Key_1);
    length = d.window().findChild<QDialog*>("length");
    ASSERT_TRUE(length);
    QTest::keyClicks(length->findChild<QLineEdit*>(), "5 ft 7");
    QTest::keyClick(length->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return d.document().scales.contains(ScaleKind::Height); }));
    EXPECT_NEAR(d.document().scales.at(ScaleKind::Height).metres, 1.7018, 1e-9);
    d.window().activateWindow();
    choose(Qt::Key_2); // the rubber
    d.window().activateWindow();
    d.clickPicture({60, 150});
    d.clickPicture({90, 150});
    ASSERT_TRUE(d.document().scales.contains(ScaleKind::Rubber));
    EXPECT_NEAR(d.document().scales.at(ScaleKind::Rubber).to.x, 90, 1);
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.document().scales.contains(ScaleKind::Rubber));
    choose(Qt::Key_5); // the plate lies too far away
    d.window().activateWindow();
    EXPECT_EQ(d.document().scales.size(), 1U);
    choose(Qt::Key_7); // take all away
    ASSERT_TRUE(waitFor([&] { return d.document().scales.empty(); }));
}

TEST(Window, LengthsAreSaidInInchesOrCentimetresByChoice) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto release = *d.document().frameOf(Moment::Release);
    ASSERT_TRUE(d.review().session().perform(
        {"length",
         {SetScale{ScaleKind::Height, ScaleMark{0, {}, {}, 1.7}},
          SetPoint{{release, Landmark::LeadAnkle}, PointMark{{{500, 400}, 2}, ""}},
          SetPoint{{release, Landmark::Ball}, PointMark{{{560, 250}, 2}, ""}},
          SetExtras{{"release-ahead"}}}}));
    const auto ahead = [&] { return d.review().session().assessment().measure("release-ahead")->value; };
    const double inches = ahead().value.value();
    EXPECT_EQ(ahead().unit, "in");
    d.key(Qt::Key_S);
    QTest::keyClick(d.window().findChild<QDialog*>("scale"), Qt::Key_6);
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
    ASSERT_TRUE(d.document().paths.empty());
    d.key(Qt::Key_P);
    ASSERT_TRUE(waitFor([&] { return !d.document().paths.empty(); }, 60000));
    for (const auto& [landmark, path] : d.document().paths) {
        EXPECT_GE(path.places.size(), 2U) << info(landmark).id;
        for (const PathPlace& end : path.from)
            EXPECT_EQ(end.at, d.document().point(end.frame, landmark)->point.at);
    }
    d.key(Qt::Key_Z);
    EXPECT_TRUE(d.document().paths.empty());
}

TEST(Window, TheCamerasShakeIsFoundByOneKeyAndSwitched) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_F);
    ASSERT_TRUE(waitFor([&] { return d.document().shake.has_value(); }, 60000));
    EXPECT_TRUE(d.document().shake->on);
    EXPECT_EQ(d.document().shake->shifts.size(),
              static_cast<std::size_t>(d.review().session().clip().frames));
    d.key(Qt::Key_F);
    EXPECT_FALSE(d.document().shake->on);
    d.key(Qt::Key_Z);
    EXPECT_TRUE(d.document().shake->on);
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

TEST(Window, AMeasureOfTheCoachsOwnJoinsTheWalkAndStays) {
    Walk walk(Stage::Judge);
    const auto rowOf = [](Driver& d, const std::string& id) {
        return d.review().session().assessment().measure(id);
    };
    {
        Driver d(walk.library->folder());
        d.window().openReview(walk.submission.id);
        d.key(Qt::Key_PageUp);
        d.key(Qt::Key_A);
        auto* picker = d.window().findChild<QDialog*>("measure-picker");
        ASSERT_TRUE(picker);
        ASSERT_TRUE(QTest::qWaitForWindowExposed(picker));
        d.click(d.button(picker, "A measure of your own \u2026"));
        auto* dialog = d.window().findChild<QDialog*>("own-measure");
        ASSERT_TRUE(dialog);
        ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
        const auto choose = [&](const char* box, int index, const QString& value) {
            auto* combo = dialog->findChildren<QComboBox*>(box).at(index);
            combo->setCurrentText(value);
        };
        choose("kind", 0, "Tilt of a line");
        choose("point", 0, "back ankle");
        choose("point", 1, "back ankle");
        choose("position", 0, "Plant");
        QTest::keyClicks(dialog->findChild<QLineEdit*>("name"), "Back shin");
        d.click(d.button(dialog, "Keep this measure"));
        EXPECT_TRUE(dialog->findChild<QLabel*>("wrong")->text().contains("twice")); // and nothing was kept
        EXPECT_TRUE(d.document().extras.empty());
        choose("point", 1, "pelvis");
        d.click(d.button(dialog, "Keep this measure"));
        ASSERT_TRUE(waitFor([&] { return !d.document().extras.empty(); }));
        ASSERT_TRUE(rowOf(d, "own-back-shin"));
        EXPECT_TRUE(rowOf(d, "own-back-shin")->value.value); // both points are clicked for others already
    }
    Driver again(walk.library->folder());
    again.window().openReview(walk.submission.id);
    ASSERT_TRUE(rowOf(again, "own-back-shin"));
    EXPECT_TRUE(rowOf(again, "own-back-shin")->value.value);
}

TEST(Window, TheRubbersCornersTellTheCamerasTurn) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(10);
    const auto spread = [&] { return d.review().session().assessment().measure("leg-spread")->value; };
    const double plain = spread().sd;
    const auto clickCorners = [&](std::initializer_list<ImagePoint> corners) {
        d.key(Qt::Key_Y);
        auto* dialog = d.window().findChild<QDialog*>("turn");
        ASSERT_TRUE(dialog);
        QTest::keyClick(dialog, Qt::Key_2);
        d.window().activateWindow();
        for (const ImagePoint p : corners) d.clickPicture(p);
    };
    // Where the generator's camera, standing square, shows the corners of the rubber at its origin.
    const Camera camera(walk.order.camera);
    const auto corner = [&](double x, double z) { return camera.project({x, 0, z}); };
    clickCorners({corner(-0.0762, 0.3048), corner(0.0762, 0.3048), corner(0.0762, -0.3048)});
    ASSERT_TRUE(d.document().turn);
    EXPECT_NEAR(d.document().turn->deg, walk.order.camera.yawDeg, 2 * d.document().turn->sdDeg);
    EXPECT_GT(d.document().turn->sdDeg, 0);
    EXPECT_GT(spread().sd, plain); // the number is corrected, and less sure
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.document().turn);
    clickCorners({{60, 150}, {60, 150}, {60, 150}}); // one spot is no rubber
    EXPECT_FALSE(d.document().turn);
}

TEST(Window, AGuessCountsOnlyWhenItIsTaken) {
    Walk walk(Stage::Judge);
    const std::int64_t plant = *walk.review.frameOf(Moment::Plant);
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform({"clear", {SetPoint{{plant, Landmark::LeadKnee}, std::nullopt}}}));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(plant);
    const auto row = [&] { return d.review().session().assessment().measure("front-knee-plant")->value; };
    EXPECT_FALSE(row().value); // a guess is drawn, and nothing is measured by it
    ASSERT_TRUE(guessFor(d.document(), Landmark::LeadKnee, plant));
    const ImagePoint guess = guessFor(d.document(), Landmark::LeadKnee, plant)->at;
    d.key(Qt::Key_K);
    ASSERT_TRUE(d.document().point(plant, Landmark::LeadKnee));
    EXPECT_EQ(d.document().point(plant, Landmark::LeadKnee)->point.at, guess);
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
    const std::size_t had = d.document().marks.size();
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
    EXPECT_EQ(d.document().marks.size(), had + 5);
    d.key(Qt::Key_Delete); // the last one is selected
    EXPECT_EQ(d.document().marks.size(), had + 4);
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.document().marks.size(), had + 5);
}

} // namespace
} // namespace jg
