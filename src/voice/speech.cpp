// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/speech.h"

#include "voice/microphone.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace jg {

namespace {

constexpr std::int64_t kBlock = kSampleRate / 50;
constexpr double kHighPassHz = 80;
constexpr double kAboveRoomDb = 8;   // a voice, over the room's own noise
constexpr double kUnderVoiceDb = 30; // its softest sounds, under its loud ones
constexpr double kApartDb = 12;      // less between room and voice tells nothing
constexpr double kSilentDb = -70;    // of full scale: no voice at all
constexpr int kFewest = 2;           // blocks: a click is shorter
constexpr std::int64_t kBefore = kSampleRate / 10, kAfter = kSampleRate / 5, kApart = kSampleRate / 3;

/// Loudness of each block in dB of full scale, without what lies under a voice.
std::vector<double> levelsOf(std::span<const float> samples) {
    const double keep = std::exp(-2 * std::numbers::pi * kHighPassHz / kSampleRate);
    std::vector<double> levels;
    double low = 0, power = 0;
    std::int64_t filled = 0;
    for (const float x : samples) {
        low = keep * low + (1 - keep) * x;
        power += (x - low) * (x - low);
        if (++filled < kBlock) continue;
        levels.push_back(10 * std::log10(power / kBlock + 1e-12));
        filled = 0;
        power = 0;
    }
    return levels;
}

double partOf(std::vector<double> levels, double part) {
    const auto at =
        levels.begin() + static_cast<std::ptrdiff_t>(part * static_cast<double>(levels.size() - 1));
    std::nth_element(levels.begin(), at, levels.end());
    return *at;
}

/// Runs of blocks above the limit; a hum of one block is none.
std::vector<SampleSpan> loudRuns(const std::vector<double>& levels, double limit) {
    std::vector<SampleSpan> runs;
    std::size_t from = 0;
    for (std::size_t i = 0; i <= levels.size(); ++i) {
        if (i < levels.size() && levels[i] > limit) continue;
        if (i >= from + kFewest)
            runs.push_back({static_cast<std::int64_t>(from) * kBlock, static_cast<std::int64_t>(i) * kBlock});
        from = i + 1;
    }
    return runs;
}

} // namespace

std::vector<SampleSpan> speechIn(std::span<const float> samples) {
    const auto size = static_cast<std::int64_t>(samples.size());
    const std::vector<double> levels = levelsOf(samples);
    if (levels.empty()) return {};
    const double room = partOf(levels, 0.1), voice = partOf(levels, 0.95);
    if (voice < kSilentDb) return {};
    if (voice - room < kApartDb) return {{0, size}};
    std::vector<SampleSpan> spoken;
    for (const SampleSpan& run : loudRuns(levels, std::max(room + kAboveRoomDb, voice - kUnderVoiceDb))) {
        const SampleSpan wide{std::max<std::int64_t>(0, run.from - kBefore), std::min(size, run.to + kAfter)};
        if (!spoken.empty() && wide.from - spoken.back().to < kApart)
            spoken.back().to = wide.to;
        else
            spoken.push_back(wide);
    }
    return spoken;
}

} // namespace jg
