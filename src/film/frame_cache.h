// SPDX-License-Identifier: GPL-3.0-or-later
// Decoded frames near the playhead, within a budget of bytes shared by all open films.
#pragma once

#include "base/mutex.h"

#include <atomic>
#include <cstdint>
#include <map>
#include <memory>

struct AVFrame;

namespace jg {

/// A decoded frame as the decoder gave it (planar, before any conversion). Never changed; may be read from
/// any thread.
using FrameHandle = std::shared_ptr<const AVFrame>;
/// Memory that its pictures take.
std::size_t bytesOf(const AVFrame& frame);

/// How many bytes of decoded frames all open films may hold together. Thread-safe.
class FrameBudget {
public:
    explicit FrameBudget(std::size_t bytes)
        : bytes_(bytes) {}
    /// The application's own: a quarter of the machine's memory, at most 2 GiB (own choice).
    static std::shared_ptr<FrameBudget> ofThisMachine();
    std::size_t total() const { return bytes_; }
    /// What each open film may hold now.
    std::size_t share() const { return bytes_ / std::max(1, films_.load()); }
    void join() { ++films_; }
    void leave() { --films_; }

private:
    std::size_t bytes_;
    std::atomic<int> films_ = 0;
};

/// Keeps decoded frames by number. Over budget it drops first what was passed more than a dozen frames ago,
/// then what lies farthest ahead. Thread-safe.
class FrameCache {
public:
    explicit FrameCache(std::shared_ptr<FrameBudget> budget);
    ~FrameCache();
    FrameCache(const FrameCache&) = delete;
    FrameCache& operator=(const FrameCache&) = delete;

    FrameHandle find(std::int64_t n) const;
    void put(std::int64_t n, FrameHandle frame);
    void clear();
    /// Leaves part of its share, at most a quarter, to frames that others hold: the decoder's own.
    void leaveRoom(std::size_t bytes);
    /// Where the coach is and where they go: -1 back, 1 on, 0 a jump.
    void setTravel(std::int64_t playhead, int direction);
    struct Travel {
        std::int64_t playhead = 0;
        int direction = 0;
    };
    Travel travel() const;
    /// The first number from `from` in `direction` that is not held, looking no farther than `to`; `to` past
    /// its end when all are held.
    std::int64_t firstMissing(std::int64_t from, std::int64_t to, int direction) const;
    /// How many frames fit the budget now, judged by those held; 0 while none is.
    std::int64_t capacity() const;
    std::size_t bytes() const;

private:
    std::size_t room() const JG_NEEDS(mutex_); ///< bytes it may hold now
    void trim() JG_NEEDS(mutex_);

    std::shared_ptr<FrameBudget> budget_;
    mutable Mutex mutex_;
    std::map<std::int64_t, FrameHandle> frames_ JG_GUARDED_BY(mutex_);
    std::size_t bytes_ JG_GUARDED_BY(mutex_) = 0; ///< of all in `frames_`
    std::size_t left_ JG_GUARDED_BY(mutex_) = 0;  ///< to others
    Travel travel_ JG_GUARDED_BY(mutex_);
};

} // namespace jg
