// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/decoder.h"

#include "film/limits.h"

#include <algorithm>
#include <thread>

namespace jg {

namespace {

/// One a core: FFmpeg's own choice, one more, makes the slowest frames wait longer (measured). More than
/// eight hold back more frames than a jump can spare.
const int kThreads = static_cast<int>(std::clamp(std::thread::hardware_concurrency(), 2u, 8u));

} // namespace

ff::Codec openDecoder(const AVStream* stream, Threads threads, FrameMemory& memory) {
    const AVCodec* codec = avcodec_find_decoder(stream->codecpar->codec_id);
    if (!codec) return nullptr;
    ff::Codec context(avcodec_alloc_context3(codec));
    if (avcodec_parameters_to_context(context.get(), stream->codecpar) < 0) return nullptr;
    context->pkt_timebase = stream->time_base;
    context->thread_count = threads == Threads::None ? 1 : kThreads;
    if (threads == Threads::Slices) context->thread_type = FF_THREAD_SLICE;
    context->max_pixels = kMostPixels;
    memory.serve(*context);
    if (avcodec_open2(context.get(), codec, nullptr) < 0) return nullptr;
    return context;
}

FrameHandle decodeOne(AVCodecContext& decoder, AVPacket& packet) {
    const ff::Frame frame(av_frame_alloc());
    const bool sent = avcodec_send_packet(&decoder, &packet) >= 0;
    av_packet_unref(&packet);
    avcodec_send_packet(&decoder, nullptr); // else it waits for pictures that may come before this one
    if (!sent || avcodec_receive_frame(&decoder, frame.get()) < 0) return nullptr;
    // One packet may be one field of two.
    return frame->interlaced_frame || frame->flags & AV_FRAME_FLAG_DISCARD ? nullptr : handleOf(frame.get());
}

FrameHandle handleOf(const AVFrame* frame) {
    return {av_frame_clone(frame), [](AVFrame* p) { av_frame_free(&p); }};
}

} // namespace jg
