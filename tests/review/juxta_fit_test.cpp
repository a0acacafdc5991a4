// How films of other bodies, cameras and rates are brought to one size on one ground line, and the figures
// and curves that are read from them. Bodies and camera of tests/bodies, which share no code with the
// program's.
#include "letter/juxta_sheet.h"
#include "letter/mark_painter.h"
#include "review/curve.h"
#include "review/figure.h"
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

Filmed filmed(std::uint64_t n, std::mt19937_64& engine) {
    std::uniform_real_distribution<double> distance(5, 10), yaw(-25, 25), lens(0.8, 1.4);
    std::normal_distribution<double> click(0, 2);
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

TEST(JuxtaFit, TwoHundredPairsAreOneHeightOnOneGroundLine) {
    std::mt19937_64 engine(5);
    const QRectF area(0, 0, 300, 226);
    double worstHeight = 0, worstGround = 0;
    int heightsOff = 0, groundsOff = 0;
    for (std::uint64_t n = 0; n < 200; ++n) {
        const Filmed one = filmed(2 * n, engine), other = filmed(2 * n + 1, engine);
        JuxtaSheet sheet;
        for (const Filmed* f : {&one, &other})
            sheet.rows.push_back({f->entry, juxtaFitOf(f->entry, other.entry.hand)});
        sheet.columns.push_back({Moment::Set, {cellAt(one.entry, 12), cellAt(other.entry, 12)}, {}});
        double height[2], ground[2];
        for (const std::size_t r : {0U, 1U}) {
            ASSERT_TRUE(sheet.rows[r].fit);
            const Filmed& f = r == 0 ? one : other;
            const ViewTransform view = juxtaView(sheet, {r, 0}, area);
            height[r] =
                std::hypot(view.scale * (f.crown.x - f.ground.x), view.scale * (f.crown.y - f.ground.y));
            ground[r] = view.toView(f.ground).y();
        }
        const double off = std::abs(height[0] - height[1]) / height[1];
        worstHeight = std::max(worstHeight, off);
        heightsOff += off > 0.02;
        const double groundOff = std::abs(ground[0] - ground[1]) / height[1];
        worstGround = std::max(worstGround, groundOff);
        groundsOff += groundOff > 0.01;
    }
    EXPECT_LE(heightsOff, 2) << worstHeight; // clicks of 2 px on 1080 lines are 0.7 % of a pair's height
    EXPECT_LT(worstHeight, 0.03);
    EXPECT_LE(groundsOff, 12) << worstGround; // of a ground line 0.5 %
    EXPECT_LT(worstGround, 0.02);
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

TEST(Curve, TwoMomentsWithinTheirErrorsAreTooSlowToTell) {
    EXPECT_EQ(whichFirst({-40, 8}, {-30, 8}).id, "curve.too-slow");
    EXPECT_EQ(whichFirst({-40, 8}, {-60, 8}).id, "curve.earlier");
    EXPECT_EQ(whichFirst({-40, 8}, {-20, 8}).id, "curve.later");
}

} // namespace
} // namespace jg
