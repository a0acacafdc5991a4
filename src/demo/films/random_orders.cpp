// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/random_orders.h"

#include <array>
#include <random>

namespace jg {

FilmOrder randomOrder(std::uint64_t seed, int n) {
    std::mt19937_64 engine(seed * 1000003 + static_cast<std::uint64_t>(n));
    // Own scaling of the engine's bits: library distributions differ between systems.
    const auto between = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(engine() >> 11) / 9007199254740992.0;
    };
    FilmOrder o;
    DeliveryKnobs& k = o.knobs;
    k.heightM = between(1.40, 1.95);
    k.backKneeLoad = between(95, 128);
    k.legSpread = between(84, 110);
    k.frontKneePlant = between(124, 150);
    k.frontKneeRelease = between(128, 160);
    k.trunkForward = between(28, 50);
    k.trunkSide = between(5, 24);
    k.hipsOpenPlant = between(30, 58);
    k.shouldersOpenPlant = between(0, 20);
    k.elbowHeight = between(-12, 12);
    k.elbowBend = between(76, 112);
    k.handEarlyS = between(0.02, 0.06);
    k.gloveReach = between(0.2, 1);
    k.earlyTravel = between(0.0, 0.05);
    k.tempo = between(0.85, 1.15);
    static constexpr std::array rates = {30, 60, 120, 240};
    static constexpr std::array views = {View::Open, View::Closed, View::Front, View::Rear};
    o.fps = rates.at(engine() % rates.size());
    o.camera.view = views.at(static_cast<std::size_t>(n) % views.size());
    o.camera.width = 960;
    o.camera.height = 540;
    o.hand = engine() % 3 == 0 ? Hand::Left : Hand::Right;
    o.seed = engine();
    return o;
}

} // namespace jg
