// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/guess.h"

#include "kinematics/geometry.h"
#include "review/record/joints.h"
#include "review/record/paths.h"

#include <cmath>

namespace jg {

namespace {

std::optional<ImagePoint> clickedAt(const DeliveryMarks& delivery, std::int64_t frame, Landmark landmark) {
    const PointMark* p = delivery.seenPoint(frame, landmark);
    return p ? std::optional(p->point.at) : std::nullopt;
}

/// Joints that hang on this one directly, nearest first in the chain.
std::vector<Landmark> neighboursOf(Landmark landmark, const JointPlaces& here) {
    JointPlaces pose = here;
    pose[landmark] = {};
    std::vector<Landmark> neighbours;
    for (const auto& [a, b] : limbsOf(pose)) {
        if (a == landmark) neighbours.push_back(b);
        if (b == landmark) neighbours.push_back(a);
    }
    return neighbours;
}

/// Nearest frame on which both joints are clicked.
std::optional<std::int64_t> nearestWith(const DeliveryMarks& delivery, Landmark a, Landmark b,
                                        std::int64_t frame) {
    std::optional<std::int64_t> best;
    for (const auto& [key, mark] : delivery.points) {
        if (key.landmark != a || !mark.hidden.empty() || !clickedAt(delivery, key.frame, b)) continue;
        if (!best || std::abs(key.frame - frame) < std::abs(*best - frame)) best = key.frame;
    }
    return best;
}

} // namespace

std::optional<Guess> guessFor(const DeliveryMarks& delivery, Landmark landmark, std::int64_t frame) {
    const Path path = pathOf(delivery, landmark);
    if (const auto here = between(path, frame, frame); !here.empty())
        return Guess{here.front().at, here.front().sdPx, GuessFrom::Path};
    std::optional<Guess> best;
    std::int64_t nearest = kFurthestGuess + 1;
    for (const Landmark joint : neighboursOf(landmark, jointsOn(delivery, frame))) {
        const auto other = nearestWith(delivery, joint, landmark, frame);
        if (!other || std::abs(*other - frame) >= nearest) continue;
        nearest = std::abs(*other - frame);
        const ImagePoint limb = *clickedAt(delivery, *other, landmark) - *clickedAt(delivery, *other, joint);
        // A limb swings: the guess is unsure by a third of its length after ten frames.
        const double sd = length(limb) * std::min(1.0, static_cast<double>(nearest) / 30);
        best = Guess{*clickedAt(delivery, frame, joint) + limb, sd, GuessFrom::Limb};
    }
    return best;
}

std::optional<ImagePoint> startFor(const DeliveryMarks& delivery, const GuideStep& step) {
    if (const auto guess = guessFor(delivery, step.landmark, step.frame)) return guess->at;
    std::optional<std::pair<std::int64_t, ImagePoint>> nearest;
    ImagePoint sum;
    double here = 0;
    for (const auto& [key, mark] : delivery.points) {
        if (!mark.hidden.empty()) continue;
        const std::int64_t away = std::abs(key.frame - step.frame);
        if (key.landmark == step.landmark && (!nearest || away < nearest->first))
            nearest = {away, mark.point.at};
        if (key.frame == step.frame) sum = sum + mark.point.at, ++here;
    }
    if (nearest) return nearest->second;
    return here > 0 ? std::optional(ImagePoint{sum.x / here, sum.y / here}) : std::nullopt;
}

} // namespace jg
