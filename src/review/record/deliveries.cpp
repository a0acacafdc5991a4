// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/deliveries.h"

#include <algorithm>

namespace jg {

namespace {

int highest(const Review& review, int DeliveryMarks::*what) {
    int most = 0;
    for (const DeliveryMarks& d : review.deliveries) most = std::max(most, d.*what);
    return most;
}

/// Whether a film from `view` shows the pitch, in a delivery other than `but`.
bool seenFrom(const Review& review, int pitch, View view, int but, const std::vector<Clip>& clips) {
    return std::any_of(review.deliveries.begin(), review.deliveries.end(), [&](const DeliveryMarks& d) {
        return d.number != but && d.pitch == pitch && filmOf(d, clips).view == view;
    });
}

} // namespace

const Clip& filmOf(const DeliveryMarks& delivery, const std::vector<Clip>& clips) {
    const auto it =
        std::find_if(clips.begin(), clips.end(), [&](const Clip& c) { return c.id == delivery.clip; });
    return it == clips.end() ? clips.front() : *it;
}

DeliveryMarks nextDelivery(const Review& review, int inHand, const Clip& clip, std::optional<FrameSpan> cut,
                           const std::vector<Clip>& clips) {
    const DeliveryMarks& now = review.deliveryOr(inHand);
    DeliveryMarks d;
    d.number = highest(review, &DeliveryMarks::number) + 1;
    d.clip = clip.id;
    d.cut = cut;
    for (const DeliveryMarks& same : review.deliveries)
        if (same.clip == clip.id) d.veils = same.veils;
    if (const auto tall = now.scales.find(ScaleKind::Height); tall != now.scales.end())
        d.scales.insert(*tall); // one athlete, one height
    d.conditions.start = now.conditions.start;
    d.conditions.surface = now.conditions.surface;
    const bool other = !seenFrom(review, now.pitch, clip.view, 0, clips);
    d.pitch = other ? now.pitch : highest(review, &DeliveryMarks::pitch) + 1;
    return d;
}

PitchChoice pitchChoice(const Review& review, int inHand, const std::vector<Clip>& clips) {
    PitchChoice choice;
    const View view = filmOf(review.deliveryOr(inHand), clips).view;
    choice.own = highest(review, &DeliveryMarks::pitch) + 1;
    for (const DeliveryMarks& d : review.deliveries)
        if (d.number != inHand && !d.blank() && filmOf(d, clips).view != view &&
            !seenFrom(review, d.pitch, view, inHand, clips)) {
            choice.shared = d.pitch;
            break;
        }
    return choice;
}

Message nameOf(const DeliveryMarks& delivery, const std::vector<Clip>& clips) {
    return msg("deliveries.pitch-pitch-view",
               {{"pitch", delivery.pitch}, {"view", nameOf(filmOf(delivery, clips).view)}});
}

} // namespace jg
