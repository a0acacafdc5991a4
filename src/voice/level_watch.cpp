// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/level_watch.h"

#include "voice/microphone.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <numbers>

namespace jg {

namespace {

constexpr std::size_t kBlocks = 30;         // three seconds
constexpr std::size_t kSoonest = 20;        // nothing is told of the first two
constexpr int kClippedAt = 32700, kRun = 3; // samples in a row at the end of the scale
constexpr int kClippedRuns = 2;
constexpr double kQuiet = 3.2e-5; // -45 dB of full scale, as power
constexpr double kFaint = 3.2e-6; // -55 dB: too faint for hum to matter
constexpr double kHumShare = 0.5, kBaseShare = 0.05;
// Of 50 and 60 Hz; each fits a block of a tenth of a second whole times, so one does not leak into another.
constexpr std::array<double, 6> kMains = {50, 60, 100, 120, 150, 180};

/// Power at one frequency, of the mean square (Goertzel 1958).
double powerAt(std::span<const float> block, double hz) {
    const double coefficient = 2 * std::cos(2 * std::numbers::pi * hz / kSampleRate);
    double before = 0, last = 0;
    for (const float x : block) {
        const double now = x + coefficient * last - before;
        before = last;
        last = now;
    }
    const double n = static_cast<double>(block.size());
    return 2 * (last * last + before * before - coefficient * last * before) / (n * n);
}

} // namespace

Message inWords(LevelTrouble trouble) {
    switch (trouble) {
    case LevelTrouble::Nothing:
        return msg("level-watch.nothing");
    case LevelTrouble::Quiet:
        return msg("level-watch.quiet");
    case LevelTrouble::Clipped:
        return msg("level-watch.clipped");
    case LevelTrouble::Hum:
        return msg("level-watch.hum");
    case LevelTrouble::None:
        break;
    }
    return {};
}

void LevelWatch::hear(std::span<const std::int16_t> samples) {
    for (const std::int16_t s : samples) {
        run_ = std::abs(static_cast<int>(s)) >= kClippedAt ? run_ + 1 : 0;
        clippedRuns_ += run_ == kRun;
        samples_[filled_++] = static_cast<float>(s) / 32768.0F;
        if (filled_ == samples_.size()) endBlock();
    }
}

void LevelWatch::endBlock() {
    Block b;
    for (const float x : samples_) {
        b.power += static_cast<double>(x) * x;
        b.silent = b.silent && x == 0;
    }
    b.power /= static_cast<double>(samples_.size());
    if (b.power > kFaint)
        for (const double hz : kMains) {
            const double power = powerAt(samples_, hz);
            b.hum += power;
            if (hz < 100) b.base += power;
        }
    b.clipped = clippedRuns_;
    clippedRuns_ = 0;
    filled_ = 0;
    blocks_.push_back(b);
    if (blocks_.size() > kBlocks) blocks_.pop_front();
}

LevelTrouble LevelWatch::now() const {
    if (blocks_.size() < kSoonest) return LevelTrouble::None;
    double loudest = 0, all = 0, hum = 0, base = 0;
    int clipped = 0;
    bool silent = true;
    for (const Block& b : blocks_) {
        loudest = std::max(loudest, b.power);
        all += b.power;
        hum += b.hum;
        base += b.base;
        clipped += b.clipped;
        silent = silent && b.silent;
    }
    if (silent) return LevelTrouble::Nothing;
    if (clipped >= kClippedRuns) return LevelTrouble::Clipped;
    if (loudest > kFaint && hum > kHumShare * all && base > kBaseShare * all) return LevelTrouble::Hum;
    return loudest < kQuiet ? LevelTrouble::Quiet : LevelTrouble::None;
}

} // namespace jg
