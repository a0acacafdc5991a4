// SPDX-License-Identifier: GPL-3.0-or-later
// How films of other bodies, cameras and rates are brought to one size on one ground line, and the figures
// and curves that are read from them. Bodies and camera of tests/bodies, which share no code with the
// program's.
#include "letter/juxta_sheet.h"
#include "letter/mark_painter.h"
#include "review/compare/curve.h"
#include "review/compare/figure.h"
#include "tests/bodies/pinhole.h"
#include "tests/bodies/scenario.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

/// A body at Set before a camera, with crown and ground clicked as a hand does.
struct Filmed {
    JuxtaEntry entry;
    ImagePoint crown, ground; ///< where they truly are in the picture
};

Filmed filmed(std::uint64_t n, std::mt19937_64& engine, double clickSdPx) {
    std::uniform_real_distribution<double> distance(5, 10), yaw(-25, 25), lens(0.8, 1.4);
    std::normal_distribution<double> scatter;
    const auto click = [&](std::mt19937_64& from) { return clickSdPx * scatter(from); };
    const MadeBody body = linkedBody(n);
    const auto joints = body.at(body.times.at(Moment::Set));
    Filmed f;
    f.entry.hand = n % 3 == 0 ? Hand::Left : Hand::Right;
    f.entry.clip.view = View::Open;
    f.entry.clip.width = 1920;
    f.entry.clip.height = 1080;
    Pinhole camera;
    camera.hand = f.entry.hand;
    camera.view = View::Open;
    camera.yawDeg = yaw(engine);
    camera.distanceM = distance(engine);
    camera.lensM = lens(engine);
    camera.width = 1920;
    camera.height = 1080;
    camera.focalPx = 0.55 * 1080 * camera.distanceM / body.heightM;
    f.crown = camera.project(joints.at(Landmark::Crown));
    f.ground = camera.project(joints.at(Landmark::Ground));
    f.entry.marks.moments[Moment::Set] = {12, ""};
    const auto clicked = [&](ImagePoint p) {
        return PointMark{{{p.x + click(engine), p.y + click(engine)}, 2}, ""};
    };
    f.entry.marks.points[{12, Landmark::Crown}] = clicked(f.crown);
    f.entry.marks.points[{12, Landmark::Ground}] = clicked(f.ground);
    return f;
}

/// How far the bodies and ground lines of 200 pairs of cells lie apart, in parts of the body's height.
struct Apart {
    int heights = 0, grounds = 0;  ///< pairs by more than 2 % and by more than 1 %
    double height = 0, ground = 0; ///< of the worst
};

Apart apartOfPairs(double clickSdPx) {
    std::mt19937_64 engine(5);
    const QRectF area(0, 0, 300, 226);
    Apart apart;
    for (std::uint64_t n = 0; n < 200; ++n) {
        const Filmed both[2] = {filmed(2 * n, engine, clickSdPx), filmed(2 * n + 1, engine, clickSdPx)};
        JuxtaSheet sheet;
        for (const Filmed& f : both) sheet.rows.push_back({f.entry, juxtaFitOf(f.entry, both[1].entry.hand)});
        sheet.columns.push_back({Moment::Set, {cellAt(both[0].entry, 12), cellAt(both[1].entry, 12)}, {}});
        double height[2], ground[2];
        for (const std::size_t r : {0U, 1U}) {
            const ViewTransform view = juxtaView(sheet, {r, 0}, area);
            height[r] = view.scale * length(both[r].crown - both[r].ground);
            ground[r] = view.toView(both[r].ground).y();
        }
        const double height01 = std::abs(height[0] - height[1]) / height[1],
                     ground01 = std::abs(ground[0] - ground[1]) / height[1];
        apart.height = std::max(apart.height, height01);
        apart.ground = std::max(apart.ground, ground01);
        apart.heights += height01 > 0.02;
        apart.grounds += ground01 > 0.01;
    }
    return apart;
}

TEST(JuxtaFit, TwoHundredPairsAreOneHeightOnOneGroundLine) {
    const Apart exact = apartOfPairs(0);
    EXPECT_EQ(exact.heights, 0) << exact.height;
    EXPECT_EQ(exact.grounds, 0) << exact.ground;
    // Clicks of 2 px on 1080 lines are 0.7 % of a pair's height and 0.5 % of its ground line.
    const Apart clicked = apartOfPairs(2);
    EXPECT_LE(clicked.heights, 2) << clicked.height;
    EXPECT_LT(clicked.height, 0.03);
    EXPECT_LE(clicked.grounds, 12) << clicked.ground;
    EXPECT_LT(clicked.ground, 0.02);
}

/// A delivery clicked without error, square to the camera, as an entry.
JuxtaEntry clickedEntry(std::uint64_t n) {
    std::mt19937_64 engine(n);
    double after = 0;
    const PointsDocument d =
        clickedBy(scenarios().front(), linkedBody(n), View::Open, test::playbook(), engine, after);
    JuxtaEntry e;
    e.clip = d.clips.front();
    e.hand = d.hand;
    e.marks = d.review.first();
    e.results = assess(d.review, test::playbook(), d.clips, d.hand);
    return e;
}

TEST(Figure, AnAngleIsThatOfItsMeasure) {
    const JuxtaEntry e = clickedEntry(4);
    const MeasureRow* row = e.results.measure("front-knee-plant");
    ASSERT_TRUE(row && row->value.value);
    const MeasureValue angle = figureAngleAt(e, test::playbook(), Moment::Plant, figureAngles()[0]);
    ASSERT_TRUE(angle.value);
    EXPECT_NEAR(*angle.value, *row->value.value,
                3); // without the depths that are known of the measure's own slots
    EXPECT_GT(angle.half95(), 1);
    JuxtaEntry elsewhere = e;
    elsewhere.clip.view = View::Front;
    EXPECT_TRUE(angleChanges(e, elsewhere, test::playbook(), Moment::Plant).empty());
    const auto same = angleChanges(e, e, test::playbook(), Moment::Plant);
    ASSERT_GT(same.size(), 4U);
    for (const AngleChange& a : same) {
        EXPECT_FALSE(a.real);
        EXPECT_EQ(a.difference.value, 0);
    }
}

TEST(Figure, AKneeThatWasMovedIsTheOneThatChanged) {
    const JuxtaEntry before = clickedEntry(4);
    JuxtaEntry now = before;
    const std::int64_t plant = *now.marks.frameOf(Moment::Plant);
    const auto height = std::abs(juxtaFitOf(before, Hand::Right)->heightPx);
    now.marks.points[{plant, Landmark::LeadKnee}].point.at.x += 0.12 * height;
    std::vector<std::string_view> real;
    for (const AngleChange& a : angleChanges(before, now, test::playbook(), Moment::Plant))
        if (a.real) real.push_back(a.angle->id);
    EXPECT_EQ(real.front(), "lead-knee");
    for (const std::string_view id : real) EXPECT_TRUE(id == "lead-knee" || id == "lead-hip") << id;
}

TEST(Curve, IsTheAngleOfTheClicksInRealTimeFromFirstTouch) {
    const JuxtaEntry e = clickedEntry(4);
    const FeatureCurve curve = featureCurve(e, Feature::FrontKnee);
    ASSERT_GE(curve.points.size(), 2U);
    const std::int64_t plant = *e.marks.frameOf(Moment::Plant), touch = *e.marks.frameOf(Moment::FootTouch);
    const auto at = std::find_if(curve.points.begin(), curve.points.end(),
                                 [&](const auto& p) { return p.frame == plant; });
    ASSERT_NE(at, curve.points.end());
    EXPECT_NEAR(at->ms, 1000.0 * static_cast<double>(plant - touch) / e.clip.captureFps, 1e-9);
    EXPECT_TRUE(at->clicked);
    EXPECT_GT(at->half95, 0.5);
    EXPECT_FALSE(curve.event); // a few clicks can't tell a turning point
    JuxtaEntry without = e;
    without.marks.moments.erase(Moment::FootTouch);
    EXPECT_FALSE(featureCurve(without, Feature::FrontKnee).why.empty());
    without = e;
    without.clip.captureFps = 0;
    EXPECT_FALSE(featureCurve(without, Feature::Hand).why.empty());
}

// Reckoned by hand from one frame's clicks: trunk 30 degrees toward the target, the arm at a right angle, the
// ball 300 px from the body's middle of a body of 600.
TEST(Curve, OfTrunkElbowAndBallIsWhatTheClicksSay) {
    JuxtaEntry e;
    e.clip.width = 1920, e.clip.height = 1080, e.clip.captureFps = 240;
    e.clip.view = View::Open;
    e.hand = Hand::Right;
    e.marks.turn = kSquareTurn;
    const auto click = [&](std::int64_t n, Landmark l, ImagePoint at) {
        e.marks.points[{n, l}] = {{at, 1}, ""};
    };
    e.marks.moments[Moment::Set] = {10, ""};
    click(10, Landmark::Crown, {300, 100});
    click(10, Landmark::Ground, {300, 700});
    e.marks.moments[Moment::FootTouch] = {100, ""};
    const double toward = targetDirectionX(e.hand, e.clip.view);
    ASSERT_NE(toward, 0);
    const ImagePoint pelvis{900, 600}, neck{900 + toward * 100, 600 - 100 * std::sqrt(3.0)};
    click(100, Landmark::Pelvis, pelvis);
    click(100, Landmark::Neck, neck);
    click(100, Landmark::Ball, {(pelvis.x + neck.x) / 2, (pelvis.y + neck.y) / 2 - 300});
    click(100, Landmark::BackShoulder, {800, 400});
    click(100, Landmark::BackElbow, {700, 400});
    click(100, Landmark::BackWrist, {700, 300});
    const auto only = [&](Feature f) {
        const FeatureCurve curve = featureCurve(e, f);
        EXPECT_EQ(curve.points.size(), 1U) << idOf(f) << ": " << said(curve.why);
        return curve.points.empty() ? 0 : curve.points[0].value;
    };
    EXPECT_NEAR(only(Feature::Trunk), 30, 1e-6);
    EXPECT_NEAR(only(Feature::Elbow), 90, 1e-6);
    EXPECT_NEAR(only(Feature::Ball), 50, 1e-6);
    e.clip.view = View::Front; // from there nobody sees a lean toward the target
    EXPECT_FALSE(featureCurve(e, Feature::Trunk).why.empty());
    EXPECT_FALSE(featureCurve(e, Feature::Elbow).points.empty());
}

TEST(Curve, EveryFeatureHasANameAMomentAndAnIdOfItsOwn) {
    std::set<std::string> ids, names;
    for (const Feature f : allFeatures()) {
        EXPECT_EQ(featureFromId(idOf(f)), f);
        ids.emplace(idOf(f));
        names.insert(said(nameOf(f)));
        names.insert(said(momentOf(f)));
    }
    EXPECT_EQ(ids.size(), allFeatures().size());
    EXPECT_EQ(names.size(), 2 * allFeatures().size());
}

/// A delivery whose front knee is clicked on every frame after first touch and is most bent at `leastMs`, by
/// `leastDeg`.
JuxtaEntry bendingEntry(double leastMs, double leastDeg) {
    JuxtaEntry e;
    e.clip.width = 1920, e.clip.height = 1080, e.clip.captureFps = 240;
    e.clip.view = View::Open;
    e.marks.turn = kSquareTurn;
    e.marks.moments[Moment::FootTouch] = {100, ""};
    constexpr double kShank = 200, kSdPx = 0.2;
    for (std::int64_t n = 100; n <= 140; ++n) {
        const double ms = 1000.0 * static_cast<double>(n - 100) / e.clip.captureFps;
        const double turn = (leastDeg + 0.004 * std::pow(ms - leastMs, 2)) / kDegPerRad;
        const ImagePoint knee{900, 600};
        e.marks.points[{n, Landmark::LeadKnee}] = {{knee, kSdPx}, ""};
        e.marks.points[{n, Landmark::LeadAnkle}] = {{{knee.x, knee.y + kShank}, kSdPx}, ""};
        e.marks.points[{n, Landmark::LeadHip}] = {
            {{knee.x + kShank * std::sin(turn), knee.y + kShank * std::cos(turn)}, kSdPx}, ""};
    }
    return e;
}

TEST(FeatureColumn, ShowsEachRowAtItsOwnMomentAndSaysWhatBecameOfIt) {
    const JuxtaEntry early = bendingEntry(50, 120), late = bendingEntry(100, 150);
    const auto sheet = layOutJuxta({early, late}, test::playbook(), {.columns = {Feature::FrontKnee}});
    ASSERT_TRUE(sheet) << said(sheet.error().text);
    const JuxtaColumn& column = sheet->columns.front();
    EXPECT_EQ(column.cells[0].frame, 112); // 50 ms at 240 a second
    EXPECT_EQ(column.cells[1].frame, 124);
    ASSERT_EQ(column.changes.size(), 2U);
    const JuxtaChange &when = column.changes[0], &what = column.changes[1];
    EXPECT_NEAR(*when.values[0]->value, 50, 1e-9);
    EXPECT_NEAR(when.difference->value, 50, 1e-9);
    EXPECT_EQ(when.trend, Trend::Changed);
    EXPECT_NEAR(*what.values[0]->value, 120, 1e-6);
    EXPECT_NEAR(what.difference->value, 30, 1e-6);
    EXPECT_EQ(what.trend, Trend::Changed);
    EXPECT_EQ(shortNameOf(what, test::playbook()).id, nameOf(Feature::FrontKnee).id);
}

TEST(FeatureColumn, SaysWhyARowHasNoMomentAndWhyTwoAreNotCompared) {
    JuxtaEntry one = bendingEntry(50, 120), other = bendingEntry(100, 150);
    const auto columnOfBoth = [&](const std::set<std::string>& overruled = {}) {
        return layOutJuxta({one, other}, test::playbook(),
                           {.columns = {Feature::FrontKnee, Moment::FootTouch}, .overruled = overruled})
            ->columns.front();
    };
    other.marks.turn.reset(); // an angle in the picture hangs on how the camera stood, a time does not
    EXPECT_TRUE(columnOfBoth().changes[0].trend);
    EXPECT_EQ(columnOfBoth().changes[1].notComparable.id, "juxta.turn-unsaid");
    EXPECT_TRUE(columnOfBoth({"front-knee"}).changes[1].overruled);
    other.clip.view = View::Closed;
    EXPECT_EQ(columnOfBoth().changes[0].notComparable.id, "juxta.other-side");
    std::erase_if(other.marks.points, [](const auto& p) { return p.first.frame % 8 != 0; });
    EXPECT_EQ(columnOfBoth().cells[1].why.id, "curve.too-few");
    EXPECT_TRUE(columnOfBoth().changes.empty());
    other.marks.points.clear();
    EXPECT_EQ(columnOfBoth().cells[1].why.id, "curve.no-points");
    other = bendingEntry(170, 60); // still bending where the clicks end
    EXPECT_EQ(columnOfBoth().cells[1].why.id, "curve.at-the-end");
}

TEST(Curve, OfTwoFeaturesTheEarlierMomentIsNamedFirst) {
    const FeatureMoment knee{Feature::FrontKnee, {40, 5}}, elbow{Feature::Elbow, {100, 5}};
    for (const Message& told : {orderOf(knee, elbow), orderOf(elbow, knee)})
        EXPECT_EQ(said(told), "First: Front knee most bent. 60 ms later: Throwing elbow most bent.");
    EXPECT_NE(said(orderOf(knee, {Feature::Elbow, {46, 5}})).find("Too close"), std::string::npos);
}

TEST(Curve, TwoMomentsWithinTheirErrorsAreTooSlowToTell) {
    EXPECT_EQ(whichFirst({-40, 8}, {-30, 8}).id, "curve.too-slow");
    EXPECT_EQ(whichFirst({-40, 8}, {-60, 8}).id, "curve.earlier");
    EXPECT_EQ(whichFirst({-40, 8}, {-20, 8}).id, "curve.later");
}

} // namespace
} // namespace jg
