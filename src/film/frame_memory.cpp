// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/frame_memory.h"

extern "C" {
#include <libavutil/pixdesc.h>
}

#include <algorithm>
#include <array>
#include <cassert>
#include <functional>
#include <sys/mman.h>

namespace jg {

namespace {

constexpr std::size_t kStretch = std::size_t{64} << 20; ///< own choice
constexpr std::size_t kPage = 4096;
constexpr std::size_t kSmallest = std::size_t{256} << 10; ///< smaller frames stay with FFmpeg's own pool
constexpr std::size_t kAlign = 64, kOverread = 64;        ///< of planes: what FFmpeg's assembly may touch

std::size_t roundUp(std::size_t value, std::size_t step) {
    return (value + step - 1) / step * step;
}

struct Layout {
    std::array<int, 4> lines{};
    std::array<std::size_t, 4> at{};
    int planes = 0;
    std::size_t bytes = 0; ///< 0: not a layout for this memory
};

/// As FFmpeg's own allocator lays a frame out: lines widened until every plane's are aligned.
Layout layoutOf(AVCodecContext& context, const AVFrame& frame) {
    const auto format = static_cast<AVPixelFormat>(frame.format);
    const AVPixFmtDescriptor* facts = av_pix_fmt_desc_get(format);
    if (!facts || (facts->flags & (AV_PIX_FMT_FLAG_HWACCEL | AV_PIX_FMT_FLAG_PAL))) return {};
    int width = frame.width, height = frame.height;
    std::array<int, AV_NUM_DATA_POINTERS> align{};
    avcodec_align_dimensions2(&context, &width, &height, align.data());
    Layout l;
    for (bool aligned = false; !aligned; width += width & ~(width - 1)) {
        if (av_image_fill_linesizes(l.lines.data(), format, width) < 0) return {};
        aligned = true;
        for (std::size_t i = 0; i < 4; ++i) aligned &= align[i] == 0 || l.lines[i] % align[i] == 0;
    }
    std::array<std::ptrdiff_t, 4> strides{};
    std::copy(l.lines.begin(), l.lines.end(), strides.begin());
    std::array<std::size_t, 4> sizes{};
    if (av_image_fill_plane_sizes(sizes.data(), format, height, strides.data()) < 0) return {};
    for (; l.planes < 4 && sizes[static_cast<std::size_t>(l.planes)] > 0; ++l.planes) {
        l.at[static_cast<std::size_t>(l.planes)] = l.bytes;
        l.bytes += roundUp(sizes[static_cast<std::size_t>(l.planes)] + kOverread, kAlign);
    }
    return l;
}

int giveFrame(AVCodecContext* context, AVFrame* frame, int flags) {
    const bool direct = context->codec->capabilities & AV_CODEC_CAP_DR1;
    const Layout l = direct && !context->hw_frames_ctx ? layoutOf(*context, *frame) : Layout{};
    if (l.bytes < kSmallest) return avcodec_default_get_buffer2(context, frame, flags);
    AVBufferRef* block = static_cast<FrameMemory*>(context->opaque)->take(l.bytes);
    if (!block) return AVERROR(ENOMEM);
    frame->buf[0] = block;
    for (int i = 0; i < l.planes; ++i) {
        frame->data[i] = block->data + l.at[static_cast<std::size_t>(i)];
        frame->linesize[i] = l.lines[static_cast<std::size_t>(i)];
    }
    frame->extended_data = frame->data;
    return 0;
}

} // namespace

struct FrameMemory::Taken {
    std::shared_ptr<FrameMemory> memory;
    std::list<Stretch>::iterator stretch;
};

FrameMemory::~FrameMemory() { // nobody else holds it
    for (const Stretch& s : stretches_) munmap(s.start, s.bytes);
}

void FrameMemory::serve(AVCodecContext& context) {
    context.opaque = this;
    context.get_buffer2 = giveFrame;
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wdeprecated-declarations"
    context.thread_safe_callbacks = 1; // else frame threads wait for each other to get memory
#pragma GCC diagnostic pop
}

std::list<FrameMemory::Stretch>::iterator FrameMemory::stretchFor(std::size_t block) {
    const auto found = std::find_if(stretches_.begin(), stretches_.end(),
                                    [&](const Stretch& s) { return s.block == block && !s.full(); });
    if (found != stretches_.end()) return found;
    Stretch s;
    s.block = block;
    s.fresh = s.blocks = std::max<std::size_t>(1, kStretch / block);
    s.bytes = s.blocks * block;
    void* start = mmap(nullptr, s.bytes, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
    if (start == MAP_FAILED) return stretches_.end();
    madvise(start, s.bytes, MADV_HUGEPAGE); // measured: half the time of small pages; refused is no harm
    s.start = static_cast<std::uint8_t*>(start);
    return stretches_.insert(stretches_.end(), std::move(s));
}

AVBufferRef* FrameMemory::take(std::size_t bytes) {
    const auto [block, fresh] = reserve(roundUp(bytes, kPage));
    // Beside the lock: other threads need not wait for it. An older system does it page by page.
    if (block && fresh) madvise(block->data, block->size, MADV_POPULATE_WRITE);
    return block;
}

std::pair<AVBufferRef*, bool> FrameMemory::reserve(std::size_t bytes) {
    const Holding lock(mutex_);
    const auto stretch = stretchFor(bytes);
    if (stretch == stretches_.end()) return {};
    const bool fresh = stretch->free.empty();
    std::uint8_t* block =
        fresh ? stretch->start + (stretch->blocks - stretch->fresh) * stretch->block : stretch->free.back();
    auto taken = std::make_unique<Taken>(Taken{shared_from_this(), stretch});
    AVBufferRef* ref = av_buffer_create(block, stretch->block, giveBack, taken.get(), 0);
    if (!ref) return {};
    taken.release();
    if (fresh)
        --stretch->fresh;
    else
        stretch->free.pop_back();
    return {ref, fresh};
}

void FrameMemory::giveBack(void* taken, std::uint8_t* block) {
    const std::unique_ptr<Taken> own(static_cast<Taken*>(taken));
    own->memory->release(own->stretch, block);
}

void FrameMemory::release(std::list<Stretch>::iterator stretch, std::uint8_t* block) {
    const Holding lock(mutex_);
    assert(stretch->free.size() + stretch->fresh < stretch->blocks);
    stretch->free.push_back(block);
    if (!stretch->idle() ||
        std::count_if(stretches_.begin(), stretches_.end(), std::mem_fn(&Stretch::idle)) < 2)
        return;
    munmap(stretch->start, stretch->bytes);
    stretches_.erase(stretch);
}

std::size_t FrameMemory::mapped() const {
    const Holding lock(mutex_);
    std::size_t bytes = 0;
    for (const Stretch& s : stretches_) bytes += s.bytes;
    return bytes;
}

} // namespace jg
