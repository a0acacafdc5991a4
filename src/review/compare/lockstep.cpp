// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/lockstep.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace jg {

namespace {
constexpr double kMsPerS = 1000;
constexpr double kNothingMs = 1e-6; // two times that are one
} // namespace

Lockstep::Lockstep(std::array<FrameTimes, 2> films, std::array<std::int64_t, 2> locks)
    : films_(std::move(films)) {
    lockAt(locks);
}

std::int64_t Lockstep::held(Side side, std::int64_t frame) const {
    return std::clamp<std::int64_t>(frame, 0, static_cast<std::int64_t>(films_[side].size()) - 1);
}

void Lockstep::lockAt(std::array<std::int64_t, 2> locks) {
    locks_ = {held(0, locks[0]), held(1, locks[1])};
    ms_ = 0;
}

double Lockstep::msOf(Side side, std::int64_t frame) const {
    const FrameTimes& t = films_[side];
    return (t[static_cast<std::size_t>(held(side, frame))] - t[static_cast<std::size_t>(locks_[side])]) *
           kMsPerS;
}

std::int64_t Lockstep::frame(Side side) const {
    const FrameTimes& t = films_[side];
    const double now = t[static_cast<std::size_t>(locks_[side])] + ms_ / kMsPerS;
    const auto after = std::lower_bound(t.begin(), t.end(), now);
    if (after == t.begin()) return 0;
    if (after == t.end()) return static_cast<std::int64_t>(t.size()) - 1;
    const auto nearer = now - *(after - 1) < *after - now ? after - 1 : after;
    return nearer - t.begin();
}

double Lockstep::lengthMs(Side side) const {
    const auto last = static_cast<std::int64_t>(films_[side].size()) - 1;
    if (last < 1) return 0;
    const std::int64_t from = std::min(frame(side), last - 1);
    return msOf(side, from + 1) - msOf(side, from);
}

bool Lockstep::beyond(Side side) const {
    const auto last = static_cast<std::int64_t>(films_[side].size()) - 1;
    const double half = lengthMs(side) / 2 + kNothingMs;
    return ms_ < msOf(side, 0) - half || ms_ > msOf(side, last) + half;
}

double Lockstep::apartMs() const {
    return std::abs(msOf(0, frame(0)) - msOf(1, frame(1)));
}

double Lockstep::mostApartMs() const {
    return std::max(lengthMs(0), lengthMs(1)) / 2;
}

double Lockstep::firstMs() const {
    return std::min(msOf(0, 0), msOf(1, 0));
}

double Lockstep::lastMs() const {
    const auto end = [&](Side s) { return msOf(s, static_cast<std::int64_t>(films_[s].size()) - 1); };
    return std::max(end(0), end(1));
}

void Lockstep::goTo(double ms) {
    ms_ = std::clamp(ms, firstMs(), lastMs());
}

void Lockstep::step(int by) {
    const bool ended[2] = {beyond(0), beyond(1)};
    const Side finer = ended[0] != ended[1] ? (ended[0] ? 1 : 0) : (lengthMs(1) < lengthMs(0) ? 1 : 0);
    const std::int64_t from = frame(finer), to = held(finer, from + by);
    if (to != from) return goToFrame(finer, to);
    // The finer one stands at its end; the other may have more.
    const Side other = 1 - finer;
    goTo(ms_ + by * lengthMs(other));
}

bool Lockstep::goToNext(const std::array<std::vector<std::int64_t>, 2>& frames, int direction) {
    double best = 0;
    bool found = false;
    for (const Side side : {Side{0}, Side{1}})
        for (const std::int64_t f : frames[side]) {
            const double at = msOf(side, f);
            if (direction * (at - ms_) <= kNothingMs) continue;
            if (!found || direction * (best - at) > 0) best = at, found = true;
        }
    if (found) goTo(best);
    return found;
}

void Lockstep::nudge(Side side, int by) {
    const double kept = ms_;
    locks_[side] = held(side, locks_[side] + by);
    goTo(kept);
}

} // namespace jg
