// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/frame_cache.h"

#include "film/ffmpeg_handles.h"

#include <algorithm>
#include <cassert>
#include <cstdlib>
#include <unistd.h>

namespace jg {

namespace {

constexpr std::int64_t kKeptBehind = 12;

} // namespace

std::size_t bytesOf(const AVFrame& frame) {
    std::size_t bytes = 0;
    for (const AVBufferRef* buffer : frame.buf)
        if (buffer) bytes += buffer->size;
    return bytes;
}

std::shared_ptr<FrameBudget> FrameBudget::ofThisMachine() {
    static const auto budget = [] {
        const auto pages = static_cast<std::size_t>(std::max(0L, sysconf(_SC_PHYS_PAGES)));
        const auto memory = pages * static_cast<std::size_t>(std::max(0L, sysconf(_SC_PAGESIZE)));
        return std::make_shared<FrameBudget>(
            std::clamp(memory / 4, std::size_t{64} << 20, std::size_t{2} << 30));
    }();
    return budget;
}

FrameCache::FrameCache(std::shared_ptr<FrameBudget> budget)
    : budget_(std::move(budget)) {
    budget_->join();
}

FrameCache::~FrameCache() {
    budget_->leave();
}

FrameHandle FrameCache::find(std::int64_t n) const {
    const Holding lock(mutex_);
    const auto it = frames_.find(n);
    return it == frames_.end() ? nullptr : it->second;
}

void FrameCache::put(std::int64_t n, FrameHandle frame) {
    const Holding lock(mutex_);
    const std::size_t size = bytesOf(*frame);
    if (!frames_.emplace(n, std::move(frame)).second) return;
    bytes_ += size;
    trim();
}

void FrameCache::clear() {
    const Holding lock(mutex_);
    frames_.clear();
    bytes_ = 0;
}

void FrameCache::leaveRoom(std::size_t bytes) {
    const Holding lock(mutex_);
    left_ = bytes;
}

std::size_t FrameCache::room() const {
    const std::size_t share = budget_->share();
    return share - std::min(left_, share / 4);
}

void FrameCache::setTravel(std::int64_t playhead, int direction) {
    const Holding lock(mutex_);
    travel_ = {playhead, direction};
}

FrameCache::Travel FrameCache::travel() const {
    const Holding lock(mutex_);
    return travel_;
}

std::int64_t FrameCache::firstMissing(std::int64_t from, std::int64_t to, int direction) const {
    const Holding lock(mutex_);
    for (; (to - from) * direction >= 0; from += direction)
        if (!frames_.contains(from)) return from;
    return from;
}

std::int64_t FrameCache::capacity() const {
    const Holding lock(mutex_);
    if (frames_.empty()) return 0;
    return static_cast<std::int64_t>(room() * frames_.size() / std::max<std::size_t>(1, bytes_));
}

std::size_t FrameCache::bytes() const {
    const Holding lock(mutex_);
    return bytes_;
}

void FrameCache::trim() {
    const std::size_t most = room();
    while (bytes_ > most && frames_.size() > 1) {
        const auto first = frames_.begin(), last = std::prev(frames_.end());
        const std::int64_t before = travel_.playhead - first->first, after = last->first - travel_.playhead;
        auto victim = before > after ? first : last;
        if (travel_.direction < 0) victim = after > kKeptBehind ? last : first;
        if (travel_.direction > 0) victim = before > kKeptBehind ? first : last;
        assert(bytesOf(*victim->second) <= bytes_);
        bytes_ -= bytesOf(*victim->second);
        frames_.erase(victim);
    }
}

} // namespace jg
