// SPDX-License-Identifier: GPL-3.0-or-later
// A point of known depth comes back to the plane square to the view, from any turned camera of the generator.
#include "kinematics/place.h"

#include "demo/films/camera.h"
#include "demo/films/random_orders.h"
#include "kinematics/geometry.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

TEST(Placed, TakesOffTurnPitchRollAndPerspective) {
    for (int n = 0; n < 24; ++n) {
        FilmOrder order = randomOrder(3, n);
        order.hand = n % 3 == 0 ? Hand::Left : Hand::Right;
        order.camera.yawDeg = -25 + 2.1 * n;
        order.camera.rollDeg = order.hand == Hand::Left ? -3 : 3; // as the picture shows it
        order.camera.heightM = 0.3 + 0.06 * n;                    // it looks at a height of 0.86
        const CameraSettings& c = order.camera;
        const bool towardGiven = c.view == View::Open || c.view == View::Front;
        const double farM = std::hypot(c.distanceM, c.heightM - 0.86),
                     focal = c.width / c.fieldM * c.distanceM, pxPerM = focal / farM,
                     aimM = isSideView(c.view) ? 0.72 : 0.55;
        const int along =
            isSideView(c.view) ? targetDirectionX(order.hand, c.view) : gloveDirectionX(order.hand, c.view);
        const Placing how{{c.width / 2.0, c.height / 2.0},
                          3,
                          towardGiven ? c.yawDeg : -c.yawDeg,
                          std::atan2(c.heightM - 0.86, c.distanceM) * kDegPerRad,
                          focal,
                          along};
        const Delivery delivery(order.knobs);
        const Pose pose = delivery.poseAt(delivery.events().at(Moment::Plant));
        const auto points = projectJoints(order, pose);
        for (const auto& [landmark, p] : pose.joints) {
            const double x = p(0) - aimM, up = p(1) - 0.86;
            const bool side = isSideView(c.view);
            const double depth =
                (side ? p(2) : x) * (c.view == View::Closed || c.view == View::Rear ? -1 : 1);
            const double given = side ? x : -p(2); // to the target, or to the glove side
            const ImagePoint at = placed(points.at(landmark), depth * pxPerM, how);
            EXPECT_NEAR(at.x * along / pxPerM, given, 1e-6) << n << " " << info(landmark).id;
            EXPECT_NEAR(-at.y / pxPerM, up, 1e-6) << n << " " << info(landmark).id;
        }
    }
}

TEST(Pitch, IsFoundFromTheGroundUnderTheAthlete) {
    for (const double lensM : {0.5, 0.86, 1.4}) {
        FilmOrder order;
        order.camera.heightM = lensM;
        const Camera camera(order.camera);
        const double farM = std::hypot(order.camera.distanceM, lensM - 0.86);
        const double focal = order.camera.width / order.camera.fieldM * order.camera.distanceM;
        const ImagePoint ground = camera.project({0.72, 0, 0});
        const double below = (ground.y - order.camera.height / 2.0) / focal * farM;
        const Estimate pitch = pitchFromGround(below, {lensM, 0.2}, {order.camera.distanceM, 0.5});
        EXPECT_NEAR(pitch.value, std::atan2(lensM - 0.86, order.camera.distanceM) * kDegPerRad, 0.05);
        // The lens' height decides its error; worked by hand: 0.2 m at 5 to 9 m are about 1.3 to 2.3 degrees.
        EXPECT_NEAR(pitch.sd, 0.2 / order.camera.distanceM * kDegPerRad, 0.4);
    }
}

} // namespace
} // namespace jg
