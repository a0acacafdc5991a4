#include "review/deliveries.h"

#include "review/assess.h"

#include <algorithm>

namespace jg {

namespace {

int highest(const Review& review, int DeliveryMarks::*what) {
    int most = review.*what;
    for (const DeliveryMarks& d : review.aside) most = std::max(most, d.*what);
    return most;
}

/// Whether a film from `view` shows the pitch, in a delivery other than `but`.
bool seenFrom(const Review& review, int pitch, View view, int but, const std::vector<Clip>& clips) {
    const auto shows = [&](const DeliveryMarks& d) {
        return d.number != but && d.pitch == pitch && filmOf(d, clips).view == view;
    };
    return shows(review) || std::any_of(review.aside.begin(), review.aside.end(), shows);
}

} // namespace

DeliveryMarks nextDelivery(const Review& review, const Clip& clip, std::optional<FrameSpan> cut,
                           const std::vector<Clip>& clips) {
    DeliveryMarks d;
    d.number = highest(review, &DeliveryMarks::number) + 1;
    d.clip = clip.id;
    d.cut = cut;
    const bool other = !seenFrom(review, review.pitch, clip.view, 0, clips);
    d.pitch = other ? review.pitch : highest(review, &DeliveryMarks::pitch) + 1;
    return d;
}

PitchChoice pitchChoice(const Review& review, const std::vector<Clip>& clips) {
    PitchChoice choice;
    const View view = filmOf(review, clips).view;
    choice.own = highest(review, &DeliveryMarks::pitch) + 1;
    for (const DeliveryMarks& d : review.aside)
        if (!d.blank() && filmOf(d, clips).view != view &&
            !seenFrom(review, d.pitch, view, review.number, clips)) {
            choice.shared = d.pitch;
            break;
        }
    return choice;
}

std::string nameOf(const DeliveryMarks& delivery, const std::vector<Clip>& clips) {
    return "Pitch " + std::to_string(delivery.pitch) + ", " +
           std::string(nameOf(filmOf(delivery, clips).view));
}

} // namespace jg
