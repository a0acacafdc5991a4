// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/one_person.h"

#include "kinematics/geometry.h"
#include "review/record/camera_place.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

using L = Landmark;

/// Two joints and the most that lies between them, in standing heights.
struct Reach {
    L from, to;
    double heights;
    bool limb = true; ///< one bone, so that its length tells the height
};

constexpr std::array kReaches = {
    Reach{L::LeadHip, L::LeadKnee, 0.245},        Reach{L::BackHip, L::BackKnee, 0.245},
    Reach{L::LeadKnee, L::LeadAnkle, 0.246},      Reach{L::BackKnee, L::BackAnkle, 0.246},
    Reach{L::LeadShoulder, L::LeadElbow, 0.186},  Reach{L::BackShoulder, L::BackElbow, 0.186},
    Reach{L::LeadElbow, L::LeadWrist, 0.146},     Reach{L::BackElbow, L::BackWrist, 0.146},
    Reach{L::LeadHip, L::BackHip, 0.191, false},  Reach{L::LeadShoulder, L::BackShoulder, 0.259, false},
    Reach{L::Pelvis, L::Neck, 0.34, false},       Reach{L::Neck, L::Head, 0.16, false},
    Reach{L::Pelvis, L::LeadKnee, 0.33, false},   Reach{L::Pelvis, L::BackKnee, 0.33, false},
    Reach{L::Pelvis, L::LeadAnkle, 0.56, false},  Reach{L::Pelvis, L::BackAnkle, 0.56, false},
    Reach{L::LeadAnkle, L::LeadToe, 0.17, false}, Reach{L::BackAnkle, L::BackToe, 0.17, false},
    Reach{L::BackWrist, L::Ball, 0.16, false},
};

/// The distance between two joints on a frame; nothing unless both are seen there.
std::optional<double> apart(const DeliveryMarks& d, std::int64_t frame, L from, L to) {
    const PointMark *a = d.seenPoint(frame, from), *b = d.seenPoint(frame, to);
    if (!a || !b) return std::nullopt;
    return length(a->point.at - b->point.at);
}

/// A ball that has left the hand belongs to nobody.
bool inFlight(const DeliveryMarks& d, std::int64_t frame, const Reach& reach) {
    const auto release = d.frameOf(Moment::Release);
    return reach.to == L::Ball && (!release || frame > *release);
}

template <typename Take>
void eachReach(const DeliveryMarks& d, const Take& take) {
    std::int64_t last = -1;
    for (const auto& [key, mark] : d.points) {
        if (key.frame == last) continue;
        last = key.frame;
        for (const Reach& reach : kReaches)
            if (!inFlight(d, key.frame, reach))
                if (const auto px = apart(d, key.frame, reach.from, reach.to)) take(key.frame, reach, *px);
    }
}

/// Limbs look shorter than they are, never longer: the upper of the middle ones.
double likelyHeight(const DeliveryMarks& d) {
    constexpr std::size_t kFewest = 4;
    std::vector<double> heights;
    eachReach(d, [&](std::int64_t, const Reach& reach, double px) {
        if (reach.limb) heights.push_back(px / reach.heights);
    });
    if (heights.size() < kFewest) return 0;
    const auto at = heights.begin() + static_cast<std::ptrdiff_t>(heights.size() * 2 / 3);
    std::nth_element(heights.begin(), at, heights.end());
    return *at;
}

Message wordsFor(const Reach& reach, double times) {
    return msg("one-person.too-far", {{"to", info(reach.to).name()},
                                      {"from", info(reach.from).name()},
                                      {"percent", std::lround(100 * times)}});
}

} // namespace

std::vector<OddPair> notOnePerson(const DeliveryMarks& d) {
    constexpr double kTooFar = 1.35;
    std::vector<OddPair> odd;
    const Estimate clicked = heightOf(d);
    const double height = clicked.value > 0 ? clicked.value : likelyHeight(d);
    if (height <= 0) return odd;
    eachReach(d, [&](std::int64_t frame, const Reach& reach, double px) {
        const double times = px / (reach.heights * height);
        if (times > kTooFar) odd.push_back({frame, reach.from, reach.to, wordsFor(reach, times)});
    });
    return odd;
}

} // namespace jg
