// SPDX-License-Identifier: GPL-3.0-or-later
// The generator: its knobs are met, its limbs keep their length, its events are what they say.
#include "demo/films/delivery.h"

#include "demo/films/body.h"
#include "demo/films/random_orders.h"
#include "demo/films/truth.h"
#include "kinematics/geometry.h"
#include "kinematics/measure.h"
#include "tests/support/fixtures.h"

#include <nlohmann/json.hpp>

#include <cmath>

namespace jg {
namespace {

TEST(Delivery, LimbsKeepTheirLengthThroughout) {
    for (int n = 0; n < 6; ++n) {
        const FilmOrder order = randomOrder(11, n);
        const Delivery d(order.knobs);
        const double h = order.knobs.heightM;
        for (double t = d.startS(); t < d.endS(); t += 0.01) {
            const Joints j = d.poseAt(t).joints;
            const auto apart = [&](Landmark a, Landmark b) { return (j.at(a) - j.at(b)).norm() / h; };
            EXPECT_NEAR(apart(Landmark::BackShoulder, Landmark::BackElbow), body::kUpperArm, 1e-9);
            EXPECT_NEAR(apart(Landmark::BackElbow, Landmark::BackWrist), body::kForearm, 1e-9);
            EXPECT_NEAR(apart(Landmark::LeadHip, Landmark::LeadKnee), body::kThigh, 2e-3) << t;
            EXPECT_NEAR(apart(Landmark::LeadKnee, Landmark::LeadAnkle), body::kShank, 4e-3) << t;
            EXPECT_NEAR(apart(Landmark::BackKnee, Landmark::BackAnkle), body::kShank, 4e-3) << t;
        }
    }
}

TEST(Delivery, KnobsAreMet) {
    DeliveryKnobs k;
    k.backKneeLoad = 108;
    k.legSpread = 97;
    k.frontKneePlant = 136;
    k.frontKneeRelease = 149;
    k.trunkForward = 41;
    k.elbowBend = 95;
    const auto m = trueMeasures(Delivery(k));
    EXPECT_NEAR(m.at("back-knee"), 108, 1);
    EXPECT_NEAR(m.at("leg-spread"), 97, 1);
    EXPECT_NEAR(m.at("front-knee-plant"), 136, 1);
    EXPECT_NEAR(m.at("front-knee-release"), 149, 1);
    EXPECT_NEAR(m.at("trunk-lean"), 41, 2);
    EXPECT_NEAR(m.at("elbow-bend"), 95, 1);
}

TEST(Delivery, EventsComeInOrder) {
    for (int n = 0; n < 8; ++n) {
        const Delivery d(randomOrder(5, n).knobs);
        const auto& e = d.events();
        EXPECT_LT(e.at(Moment::Set), e.at(Moment::LiftTop));
        EXPECT_LT(e.at(Moment::LiftTop), e.at(Moment::HandBreak));
        EXPECT_LT(e.at(Moment::Load), e.at(Moment::FootTouch));
        EXPECT_LT(e.at(Moment::FootTouch), e.at(Moment::Plant));
        EXPECT_LT(e.at(Moment::Plant), e.at(Moment::Layback));
        EXPECT_LE(e.at(Moment::Layback), e.at(Moment::Release));
        EXPECT_LT(e.at(Moment::Release), e.at(Moment::Finish));
    }
}

TEST(Delivery, TheFrontFootTouchesAtFirstTouchAndNotBefore) {
    const Delivery d{DeliveryKnobs{}};
    const auto lowest = [&](double t) {
        const Joints j = d.poseAt(t).joints;
        return std::min(j.at(Landmark::LeadHeel)(1), j.at(Landmark::LeadToe)(1)) -
               d.groundAt(j.at(Landmark::LeadAnkle)(0));
    };
    EXPECT_GT(lowest(-0.03), 0.005);
    EXPECT_NEAR(lowest(0), 0, 0.02);
    EXPECT_NEAR(lowest(0.1), 0, 0.01);
}

TEST(Film, TheSameOrderGivesTheSameFile) {
    const test::TempFolder folder;
    FilmOrder order = test::smallOrder(30);
    order.cutAfterS = -1.0;
    const auto a = makeFilm(order, folder / "a.mp4"), b = makeFilm(order, folder / "b.mp4");
    ASSERT_TRUE(a);
    EXPECT_EQ(*a, *b);
    EXPECT_EQ(*contentHash(folder / "a.mp4"), *contentHash(folder / "b.mp4"));
}

TEST(Film, StoppingLeavesNoFile) {
    const test::TempFolder folder;
    std::stop_source stop;
    stop.request_stop();
    const auto made = makeFilm(test::smallOrder(), folder / "a.mp4", stop.get_token());
    ASSERT_FALSE(made);
    EXPECT_EQ(made.error().code, ErrorCode::Cancelled);
    EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

/// Degrees a line is turned in the ground's plane.
double turnDeg(const Pose& pose, Landmark lead, Landmark back) {
    const Eigen::Vector3d v = pose.joints.at(lead) - pose.joints.at(back);
    return std::atan2(v.z(), v.x()) * kDegPerRad;
}

// Ranges of published motion studies of pitchers, from memory (for instance Fleisig and others, Journal of
// Biomechanics 32, 1999): stride 75 to 90 % of height, front knee 125 to 150 at contact, hips ahead of the
// shoulders by 30 to 60, contact to release 0.12 to 0.17 s, layback to release 0.03 to 0.05 s; about a second
// from set to release from the stretch (common practice, no source). Times and stride come from the product's
// own measures on a 240 a second film of the delivery.
TEST(Truth, LiesWithinPublishedRanges) {
    FilmOrder order = test::smallOrder(240);
    const Delivery d(order.knobs);
    const auto frame = [&](Moment m) {
        return static_cast<std::int64_t>(std::lround((d.events().at(m) - d.startS()) * order.fps));
    };
    const auto measured = [&](const char* id) {
        const MeasureDefinition& m = *test::playbook().measure(id);
        MeasureInput in;
        in.captureFps = order.fps;
        const auto at = [&](Moment moment) { return projectJoints(order, d.poseAt(d.events().at(moment))); };
        for (const Moment moment : m.moments) in.frames[moment] = frame(moment);
        for (const Slot& s : m.slots) in.points[s.name] = {at(s.at).at(s.landmark), 0.5};
        const auto set = at(Moment::Set);
        in.heightPx = {length(set.at(Landmark::Ground) - set.at(Landmark::Crown)), 0.5};
        return evaluate(m, in).value.value_or(NAN);
    };
    const auto within = [&](const char* what, double value, double low, double high) {
        EXPECT_GE(value, low) << what;
        EXPECT_LE(value, high) << what;
    };
    within("stride", measured("stride"), 75, 90);
    within("front knee", measured("front-knee-plant"), 125, 150);
    within("contact to release", measured("plant-to-release"), 120, 170);
    within("layback to release", measured("layback-to-release"), 30, 50);
    within("set to release", measured("delivery-time"), 850, 1150);
    const Pose plant = d.poseAt(d.events().at(Moment::Plant));
    within("separation",
           std::abs(turnDeg(plant, Landmark::LeadHip, Landmark::BackHip) -
                    turnDeg(plant, Landmark::LeadShoulder, Landmark::BackShoulder)),
           30, 60);
}

// The measures of the core, taken from the truth's pixels, against the truth's three-dimensional values:
// right- and left-handed, on both sides, rolled. Angles in the picture differ from those in space by the
// limb's turn out of the plane, so the limits are those of a projection, not of a click.
TEST(Truth, MeasuresFromItsPixelsComeNearTheTruthInSpace) {
    for (const Hand hand : {Hand::Right, Hand::Left})
        for (const View view : {View::Open, View::Closed}) {
            FilmOrder order = test::smallOrder(240, hand, view);
            order.camera.width = 1280;
            order.camera.height = 720;
            order.camera.rollDeg = 3;
            const Delivery d(order.knobs);
            const auto truth = trueMeasures(d);
            for (const auto& [id, inSpace] : truth) {
                const MeasureDefinition& m = *test::playbook().measure(id);
                if (!m.seenFrom(view) || !m.hasPoints()) continue;
                MeasureInput in;
                in.hand = hand;
                in.view = view;
                in.rollDeg = {hand == Hand::Left ? -3.0 : 3.0, 0.2};
                const auto pointsAt = [&](Moment moment) {
                    return projectJoints(order, d.poseAt(d.events().at(moment)));
                };
                for (const Slot& s : m.slots) in.points[s.name] = {pointsAt(s.at).at(s.landmark), 2};
                const auto set = pointsAt(Moment::Set);
                const ImagePoint tall = set.at(Landmark::Ground) - set.at(Landmark::Crown);
                in.heightPx = {length(tall), 2};
                const MeasureValue v = evaluate(m, in);
                ASSERT_TRUE(v.value) << m.id << ": " << v.reason;
                const double limit = m.unit == "%" ? 6 : 14;
                EXPECT_NEAR(*v.value, inSpace, limit) << m.id << " " << nameOf(hand) << " " << nameOf(view);
            }
        }
}

TEST(Truth, ALeftHanderHasTheRightHandersNumbers) {
    FilmOrder right = test::smallOrder(), left = test::smallOrder(60, Hand::Left);
    const Delivery d(right.knobs);
    const Pose pose = d.poseAt(0.034);
    const auto r = projectJoints(right, pose), l = projectJoints(left, pose);
    for (const auto& [landmark, p] : r) {
        EXPECT_NEAR(l.at(landmark).x, right.camera.width - p.x, 1e-9);
        EXPECT_NEAR(l.at(landmark).y, p.y, 1e-9);
    }
}

TEST(Truth, HoldsEveryJointAtEveryFrame) {
    const test::TempFolder folder;
    FilmOrder order = test::smallOrder(30);
    order.cutAfterS = -1.0;
    const auto made = makeFilm(order, folder / "a.mp4");
    ASSERT_TRUE(made);
    const auto truth = nlohmann::json::parse(*made);
    EXPECT_EQ(truth["joints"].size(), truth["frames"].get<std::size_t>());
    for (const auto& row : truth["joints"]) EXPECT_EQ(row.at("lead-knee").size(), 5U);
    EXPECT_TRUE(truth["events"].contains("layback"));
    EXPECT_TRUE(truth["measures"].contains("back-knee"));
}

} // namespace
} // namespace jg
