// Decoded frames near the playhead, within a budget of bytes.
#pragma once

#include "film/ffmpeg_handles.h"

#include <cstdint>
#include <map>

namespace jg {

/// Keeps decoded frames by number; when over budget it drops the one farthest from the playhead.
/// Not thread-safe.
class FrameCache {
public:
    explicit FrameCache(std::size_t budgetBytes)
        : budget_(budgetBytes) {}
    const AVFrame* find(std::int64_t n) const;
    /// Takes a new reference to `frame`.
    void put(std::int64_t n, const AVFrame* frame, std::int64_t playhead);
    std::size_t bytes() const { return bytes_; }

private:
    static std::size_t sizeOf(const AVFrame* frame);
    std::size_t budget_;
    std::size_t bytes_ = 0;
    std::map<std::int64_t, ff::Frame> frames_;
};

} // namespace jg
