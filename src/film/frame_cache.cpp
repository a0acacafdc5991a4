#include "film/frame_cache.h"

#include <cstdlib>

namespace jg {

const AVFrame* FrameCache::find(std::int64_t n) const {
    const auto it = frames_.find(n);
    return it == frames_.end() ? nullptr : it->second.get();
}

std::size_t FrameCache::sizeOf(const AVFrame* frame) {
    std::size_t bytes = 0;
    for (const AVBufferRef* buffer : frame->buf)
        if (buffer) bytes += buffer->size;
    return bytes;
}

void FrameCache::put(std::int64_t n, const AVFrame* frame, std::int64_t playhead) {
    if (frames_.contains(n)) return;
    frames_.emplace(n, ff::Frame(av_frame_clone(frame)));
    bytes_ += sizeOf(frame);
    while (bytes_ > budget_ && frames_.size() > 1) {
        const auto first = frames_.begin();
        const auto last = std::prev(frames_.end());
        const auto victim =
            std::llabs(first->first - playhead) >= std::llabs(last->first - playhead) ? first : last;
        bytes_ -= sizeOf(victim->second.get());
        frames_.erase(victim);
    }
}

} // namespace jg
