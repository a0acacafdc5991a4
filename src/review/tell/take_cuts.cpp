// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/take_cuts.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr double kRoundEventS = 0.3; ///< kept before and after what is shown in a pause: own choice
constexpr double kEdgeFadeS = 0.005;

std::int64_t samplesIn(const Take& take, double seconds) {
    return std::llround(seconds * take.sampleRate);
}

/// `silence` without what lies round the events in it; the pointer's way counts only while it is drawn with.
std::vector<SampleSpan> quietParts(const Take& take, SampleSpan silence) {
    const std::int64_t round = samplesIn(take, kRoundEventS);
    std::vector<SampleSpan> parts;
    for (const TakeEvent& e : take.events) {
        if (e.kind == TakeEventKind::Pointer || e.kind == TakeEventKind::PointerOff || e.sample == 0)
            continue;
        if (e.sample + round <= silence.from || e.sample - round >= silence.to) continue;
        if (e.sample - round > silence.from) parts.push_back({silence.from, e.sample - round});
        silence.from = std::max(silence.from, std::min(silence.to, e.sample + round));
    }
    if (silence.length() > 0) parts.push_back(silence);
    return parts;
}

/// A pause that keeps so much of itself, in the middle of what goes.
SampleSpan shortened(SampleSpan pause, std::int64_t keep) {
    return {pause.from + (keep + 1) / 2, std::max(pause.from + (keep + 1) / 2, pause.to - keep / 2)};
}

} // namespace

std::vector<SampleSpan> cutsOf(const Take& take, const std::vector<SampleSpan>& spoken, Shortening how) {
    std::vector<SampleSpan> wanted;
    if (how == Shortening::None || spoken.empty()) return wanted;
    wanted.push_back({0, spoken.front().from - samplesIn(take, kLeadInS)});
    if (how == Shortening::Pauses)
        for (std::size_t i = 1; i < spoken.size(); ++i)
            wanted.push_back(shortened({spoken[i - 1].to, spoken[i].from}, samplesIn(take, kPauseS)));
    wanted.push_back({spoken.back().to + samplesIn(take, kLeadOutS), take.samples});
    std::vector<SampleSpan> cuts;
    const std::int64_t least = samplesIn(take, 2 * kEdgeFadeS);
    for (const SampleSpan& span : wanted)
        for (const SampleSpan& part : quietParts(take, span))
            if (part.length() > least) cuts.push_back(part);
    return cuts;
}

std::int64_t inFile(const Take& take, std::int64_t heard) {
    std::int64_t at = std::max<std::int64_t>(0, heard);
    for (const SampleSpan& cut : take.cuts) {
        if (at < cut.from) break;
        at += cut.length();
    }
    return std::min(at, take.samples);
}

std::vector<float> heardOf(const Take& take, const std::vector<float>& file) {
    if (take.cuts.empty()) return file;
    const auto size = static_cast<std::int64_t>(file.size());
    const std::int64_t fade = samplesIn(take, kEdgeFadeS);
    std::vector<float> heard;
    heard.reserve(file.size());
    const auto add = [&](std::int64_t from, std::int64_t to) {
        to = std::min(to, size);
        for (std::int64_t i = from; i < to; ++i) {
            double gain = 1;
            if (from > 0)
                gain = std::min(gain, static_cast<double>(i - from + 1) / static_cast<double>(fade));
            if (to < size) gain = std::min(gain, static_cast<double>(to - i) / static_cast<double>(fade));
            heard.push_back(static_cast<float>(gain * file[static_cast<std::size_t>(i)]));
        }
    };
    std::int64_t at = 0;
    for (const SampleSpan& cut : take.cuts) {
        add(at, cut.from);
        at = cut.to;
    }
    add(at, size);
    return heard;
}

} // namespace jg
