// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/made_body.h"

#include "demo/films/random_orders.h"
#include "tests/bodies/linked_body.h"

#include <memory>

namespace jg {

namespace {

/// First time after the break at which the throwing hand is above its shoulder.
void findHandAboveShoulder(MadeBody& body) {
    for (double t = body.times.at(Moment::HandBreak); t < body.times.at(Moment::Release); t += 1e-3) {
        const MadeBody::Joints pose = body.at(t);
        if (pose.at(Landmark::BackWrist)(1) <= pose.at(Landmark::BackShoulder)(1)) continue;
        body.times[Moment::HandAboveShoulder] = t;
        return;
    }
}

} // namespace

MadeBody demoBody(std::uint64_t n) {
    const FilmOrder order = randomOrder(2026, static_cast<int>(n));
    const auto delivery = std::make_shared<Delivery>(order.knobs);
    return {order.knobs.heightM, delivery->events(),
            [delivery](double timeS) { return delivery->poseAt(timeS).joints; }};
}

MadeBody linkedBody(std::uint64_t n) {
    std::mt19937_64 engine(n * 7919 + 1);
    const auto drawn = std::make_shared<test::LinkedBody>(engine);
    MadeBody body{drawn->heightM(), drawn->times(), [drawn](double timeS) { return drawn->at(timeS); }};
    findHandAboveShoulder(body);
    return body;
}

} // namespace jg
