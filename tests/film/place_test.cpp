// A point of known depth comes back to the plane square to the view, from any turned camera of the generator.
#include "kinematics/place.h"

#include "demo/random_orders.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

TEST(Placed, TakesOffTurnRollAndPerspective) {
    for (int n = 0; n < 24; ++n) {
        FilmOrder order = randomOrder(3, n);
        order.hand = n % 3 == 0 ? Hand::Left : Hand::Right;
        order.camera.yawDeg = -25 + 2.1 * n;
        order.camera.rollDeg = order.hand == Hand::Left ? -3 : 3; // as the picture shows it
        order.camera.heightM = 0.86;                              // held level: it looks at this height
        const CameraSettings& c = order.camera;
        const bool towardGiven = c.view == View::Open || c.view == View::Front;
        const double pxPerM = c.width / c.fieldM, aimM = isSideView(c.view) ? 0.72 : 0.55;
        const int along =
            isSideView(c.view) ? targetDirectionX(order.hand, c.view) : gloveDirectionX(order.hand, c.view);
        const Placing how{{c.width / 2.0, c.height / 2.0},
                          3,
                          towardGiven ? c.yawDeg : -c.yawDeg,
                          c.distanceM * pxPerM,
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

} // namespace
} // namespace jg
