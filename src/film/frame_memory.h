// SPDX-License-Identifier: GPL-3.0-or-later
// Where a decoder puts its frames. Inside the film room only.
#pragma once

#include "base/mutex.h"
#include "film/ffmpeg_handles.h"

#include <cstddef>
#include <list>
#include <memory>
#include <utility>
#include <vector>

namespace jg {

/// Memory for the frames of one decoder. To touch a kept frame's pages for the first time takes nearly as
/// long as to decode it: here they come from the system all at once. Blocks given back are used again; a
/// stretch of which nothing is used any more goes back to the system, but for one. Thread-safe. Lives as long
/// as its last block.
class FrameMemory : public std::enable_shared_from_this<FrameMemory> {
public:
    FrameMemory() = default;
    ~FrameMemory();
    FrameMemory(const FrameMemory&) = delete;
    FrameMemory& operator=(const FrameMemory&) = delete;

    /// Has the decoder put its frames here where it can; before it is opened. `context` must not outlive
    /// this.
    void serve(AVCodecContext& context);
    /// A block of at least `bytes`; nullptr when there is no memory left.
    AVBufferRef* take(std::size_t bytes);
    /// Bytes asked from the system now.
    std::size_t mapped() const;

private:
    struct Stretch {
        std::uint8_t* start = nullptr;
        std::size_t bytes = 0, block = 0;
        std::size_t blocks = 0, fresh = 0; ///< how many fit, and how many of them were never used
        std::vector<std::uint8_t*> free;   ///< used before
        bool full() const { return fresh == 0 && free.empty(); }
        bool idle() const { return fresh + free.size() == blocks; }
    };
    struct Taken;
    static void giveBack(void* taken, std::uint8_t* block);
    std::list<Stretch>::iterator stretchFor(std::size_t block) JG_NEEDS(mutex_);
    std::pair<AVBufferRef*, bool> reserve(std::size_t bytes); ///< and whether it was never used before
    void release(std::list<Stretch>::iterator stretch, std::uint8_t* block);

    mutable Mutex mutex_;
    std::list<Stretch> stretches_ JG_GUARDED_BY(mutex_);
};

} // namespace jg
