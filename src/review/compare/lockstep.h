// SPDX-License-Identifier: GPL-3.0-or-later
// Two films that go together: locked at one moment of each, in real milliseconds from there.
#pragma once

#include <array>
#include <cstdint>
#include <vector>

namespace jg {

/// When each frame of a film was taken, in true seconds, rising.
using FrameTimes = std::vector<double>;

/// One of the two films.
using Side = std::size_t;

/// Where two films stand. The time goes in steps of the finer film, so that what is shown of the two is never
/// further apart than half a frame of the coarser. Films need a frame each. Value; not thread-safe.
class Lockstep {
public:
    /// `locks` are the frames that belong together; frames outside a film are put at its end.
    Lockstep(std::array<FrameTimes, 2> films, std::array<std::int64_t, 2> locks);

    /// Real milliseconds from the lock.
    double ms() const { return ms_; }
    /// The frame nearest to now; a film that has ended, or not begun, stands at its end.
    std::int64_t frame(Side side) const;
    std::int64_t lock(Side side) const { return locks_[side]; }
    /// True where the film has no picture of now.
    bool beyond(Side side) const;
    /// How far apart the two pictures shown were taken, from the lock.
    double apartMs() const;
    /// The most that can be where both films have pictures: half a frame of the coarser one here.
    double mostApartMs() const;
    double firstMs() const; ///< where the first of the two begins
    double lastMs() const;  ///< where the last of the two ends
    /// When a frame was taken, from the lock.
    double msOf(Side side, std::int64_t frame) const;

    void goTo(double ms);
    /// By frames of the finer film.
    void step(int by);
    void goToFrame(Side side, std::int64_t frame) { goTo(msOf(side, frame)); }
    /// To the next of these frames of either film, on (1) or back (-1). False when there is none.
    bool goToNext(const std::array<std::vector<std::int64_t>, 2>& frames, int direction);
    /// Unlocks one film by so many of its frames, while the other stands.
    void nudge(Side side, int by);
    /// Locks at other frames and goes there.
    void lockAt(std::array<std::int64_t, 2> locks);

private:
    double lengthMs(Side side) const; ///< of a frame, about here
    std::int64_t held(Side side, std::int64_t frame) const;

    std::array<FrameTimes, 2> films_;
    std::array<std::int64_t, 2> locks_;
    double ms_ = 0;
};

} // namespace jg
