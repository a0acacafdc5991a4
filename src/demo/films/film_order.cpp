// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/film_order.h"

#include <algorithm>
#include <cmath>

namespace jg {

std::pair<double, double> shakeOf(const FilmOrder& order, std::int64_t n) {
    if (order.shakePx <= 0) return {0, 0};
    const double t = static_cast<double>(n) / order.fps;
    const double a = static_cast<double>(order.seed % 97);
    return {order.shakePx * (0.6 * std::sin(7.1 * t + a) + 0.4 * std::sin(17.3 * t + 2 * a)),
            order.shakePx * (0.6 * std::sin(6.3 * t + 3 * a) + 0.4 * std::sin(19.9 * t + a))};
}

std::map<Landmark, ImagePoint> projectJoints(const FilmOrder& order, const Pose& pose) {
    const Camera camera(order.camera);
    std::map<Landmark, ImagePoint> points;
    for (const auto& [landmark, world] : pose.joints) {
        ImagePoint p = camera.project(world);
        if (order.hand == Hand::Left) p.x = order.camera.width - p.x;
        points[landmark] = p;
    }
    return points;
}

double filmStartS(const FilmOrder& order, const Delivery& delivery) {
    return std::max(order.startAtS, delivery.startS());
}

std::int64_t picturesOfOne(const FilmOrder& order, const Delivery& delivery) {
    const double lengthS = std::min(delivery.endS(), order.cutAfterS) - filmStartS(order, delivery);
    return static_cast<std::int64_t>(lengthS * order.fps);
}

double timeOfPicture(const FilmOrder& order, const Delivery& delivery, double n) {
    const auto one = static_cast<double>(picturesOfOne(order, delivery));
    return filmStartS(order, delivery) + (n - one * std::floor(n / one)) / order.fps;
}

} // namespace jg
