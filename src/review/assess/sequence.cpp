// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/sequence.h"

#include "review/record/paths.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

/// From the ground up: each is wanted after the one before it.
constexpr std::array kWanted = {Moment::FootTouch,    Moment::PelvisTurns, Moment::TrunkOpens,
                                Moment::ElbowForward, Moment::HandForward, Moment::Release};
/// Shown beside them, wanted in no order.
constexpr std::array kBeside = {Moment::LiftTop, Moment::HandBreak, Moment::Plant, Moment::FrontKneeExtends,
                                Moment::Layback};

int rankOf(Moment moment) {
    const auto it = std::find(kWanted.begin(), kWanted.end(), moment);
    return it == kWanted.end() ? -1 : static_cast<int>(it - kWanted.begin());
}

/// A rate at which two frames lie between events this far apart.
int rateFor(double apartMs) {
    for (const int fps : {120, 240, 480})
        if (apartMs * fps / 1000 >= 2) return fps;
    return 960;
}

void compare(const SequenceEvent& before, SequenceEvent& e, double captureFps) {
    const double gap = e.ms - before.ms, half = before.halfMs + e.halfMs;
    const Message name = info(before.moment).name();
    if (gap > half) {
        e.after =
            msg("sequence.after", {{"ms", std::lround(gap)}, {"event", name}, {"error", std::lround(half)}});
        return;
    }
    e.tooClose = true;
    const int rate = rateFor(std::max(gap, 1000 / captureFps / 2));
    e.after = rate > captureFps ? msg("sequence.too-close-rate", {{"event", name}, {"rate", rate}})
                                : msg("sequence.too-close", {{"event", name}});
}

} // namespace

std::vector<SequenceEvent> sequenceOf(const DeliveryMarks& delivery, const Clip& clip, Hand hand,
                                      const std::optional<Estimate>& ball) {
    std::vector<SequenceEvent> events;
    const auto zero = delivery.frameOf(Moment::FootTouch);
    if (!zero || clip.captureFps <= 0) return events;
    const double frameMs = 1000 / clip.captureFps;
    const auto suggested = momentsFromPaths(delivery, clip, hand);
    const auto add = [&](Moment moment) {
        const auto path = suggested.find(moment);
        const auto frame = delivery.frameOf(moment);
        if (!frame && path == suggested.end()) return;
        SequenceEvent e;
        e.moment = moment;
        e.frame = frame ? *frame : path->second.frame;
        e.fromPath = !frame;
        e.ms = static_cast<double>(e.frame - *zero) * frameMs;
        e.halfMs = frameMs * (frame ? 0.5 : static_cast<double>(path->second.plusMinus));
        if (moment == Moment::Release && frame && ball) {
            e.ms += ball->value;
            e.halfMs = ball->half95();
        }
        events.push_back(e);
        const auto mark = delivery.moments.find(moment);
        if (mark == delivery.moments.end()) return;
        for (const std::int64_t other : mark->second.again) {
            SequenceEvent again;
            again.moment = moment;
            again.frame = other;
            again.again = true;
            again.ms = static_cast<double>(other - *zero) * frameMs;
            again.halfMs = frameMs / 2;
            events.push_back(again);
        }
    };
    for (const Moment moment : kWanted) add(moment);
    for (const Moment moment : kBeside) add(moment);
    std::stable_sort(events.begin(), events.end(), [](const auto& a, const auto& b) { return a.ms < b.ms; });
    for (std::size_t i = 1; i < events.size(); ++i) compare(events[i - 1], events[i], clip.captureFps);
    for (SequenceEvent& e : events)
        for (const SequenceEvent& later : events)
            if (!e.again && !later.again && rankOf(e.moment) >= 0 && rankOf(later.moment) >= 0 &&
                rankOf(later.moment) < rankOf(e.moment) && e.ms + e.halfMs < later.ms - later.halfMs)
                e.outOfOrder = true;
    return events;
}

} // namespace jg
