// SPDX-License-Identifier: GPL-3.0-or-later
// Owning handles for FFmpeg's objects. Inside the film and voice rooms only.
#pragma once

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/display.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libswresample/swresample.h>
#include <libswscale/swscale.h>
}

#include <memory>

namespace jg::ff {

struct Free {
    void operator()(AVFrame* p) const { av_frame_free(&p); }
    void operator()(AVPacket* p) const { av_packet_free(&p); }
    void operator()(AVCodecContext* p) const { avcodec_free_context(&p); }
    void operator()(SwsContext* p) const { sws_freeContext(p); }
    void operator()(SwrContext* p) const { swr_free(&p); }
};
using Frame = std::unique_ptr<AVFrame, Free>;
using Packet = std::unique_ptr<AVPacket, Free>;
using Codec = std::unique_ptr<AVCodecContext, Free>;
using Sws = std::unique_ptr<SwsContext, Free>;
using Swr = std::unique_ptr<SwrContext, Free>;

struct CloseInput {
    void operator()(AVFormatContext* p) const { avformat_close_input(&p); }
};
using Input = std::unique_ptr<AVFormatContext, CloseInput>;

} // namespace jg::ff
