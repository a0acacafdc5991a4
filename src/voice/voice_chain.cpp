// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/voice_chain.h"

#include "base/number.h"

#include "voice/microphone.h"
#include "voice/room_noise.h"

#include <ebur128.h>

extern "C" {
#include <libavfilter/avfilter.h>
#include <libavfilter/buffersink.h>
#include <libavfilter/buffersrc.h>
#include <libavutil/channel_layout.h>
#include <libavutil/log.h>
}

#include <algorithm>
#include <cmath>
#include <memory>
#include <string>

namespace jg {

namespace {

struct FreeChain {
    void operator()(AVFilterGraph* p) const { avfilter_graph_free(&p); }
    void operator()(AVFrame* p) const { av_frame_free(&p); }
    void operator()(ebur128_state* p) const { ebur128_destroy(&p); }
};

Error broken() {
    return fail(ErrorCode::Internal, msg("voice-chain.the-voice-could-not-be-cleaned"));
}

void drain(AVFilterContext* sink, std::vector<float>& out) {
    const std::unique_ptr<AVFrame, FreeChain> frame(av_frame_alloc());
    while (av_buffersink_get_frame(sink, frame.get()) >= 0) {
        const auto* data = reinterpret_cast<const float*>(frame->data[0]);
        out.insert(out.end(), data, data + frame->nb_samples);
        av_frame_unref(frame.get());
    }
}

/// Runs mono float samples through a filter description; the result has the input's length.
Result<std::vector<float>> filtered(std::span<const float> in, const std::string& description) {
    av_log_set_level(AV_LOG_QUIET);
    const PlainNumbers plain; // options go through the graph as text
    const std::unique_ptr<AVFilterGraph, FreeChain> graph(avfilter_graph_alloc());
    AVFilterContext* source = nullptr;
    AVFilterContext* sink = nullptr;
    const std::string format =
        "sample_rate=" + std::to_string(kSampleRate) + ":sample_fmt=flt:channel_layout=mono";
    if (avfilter_graph_create_filter(&source, avfilter_get_by_name("abuffer"), "in", format.c_str(), nullptr,
                                     graph.get()) < 0 ||
        avfilter_graph_create_filter(&sink, avfilter_get_by_name("abuffersink"), "out", nullptr, nullptr,
                                     graph.get()) < 0)
        return broken();
    AVFilterInOut* inputs = avfilter_inout_alloc();
    AVFilterInOut* outputs = avfilter_inout_alloc();
    *outputs = {av_strdup("in"), source, 0, nullptr};
    *inputs = {av_strdup("out"), sink, 0, nullptr};
    const std::string chain = description + ",aresample=48000,aformat=sample_fmts=flt:channel_layouts=mono";
    int error = avfilter_graph_parse_ptr(graph.get(), chain.c_str(), &inputs, &outputs, nullptr);
    avfilter_inout_free(&inputs);
    avfilter_inout_free(&outputs);
    if (error < 0 || avfilter_graph_config(graph.get(), nullptr) < 0) return broken();
    std::vector<float> out;
    out.reserve(in.size());
    constexpr std::size_t kBlock = 4096;
    const std::unique_ptr<AVFrame, FreeChain> frame(av_frame_alloc());
    for (std::size_t at = 0; at < in.size(); at += kBlock) {
        const std::size_t n = std::min(kBlock, in.size() - at);
        frame->format = AV_SAMPLE_FMT_FLT;
        frame->sample_rate = kSampleRate;
        frame->nb_samples = static_cast<int>(n);
        frame->pts = static_cast<std::int64_t>(at);
        av_channel_layout_default(&frame->ch_layout, 1);
        if (av_frame_get_buffer(frame.get(), 0) < 0) return broken();
        std::copy_n(in.begin() + static_cast<std::ptrdiff_t>(at), n,
                    reinterpret_cast<float*>(frame->data[0]));
        if (av_buffersrc_add_frame(source, frame.get()) < 0) return broken();
        drain(sink, out);
    }
    if (av_buffersrc_add_frame(source, nullptr) < 0) return broken();
    drain(sink, out);
    out.resize(in.size());
    return out;
}

} // namespace

double loudnessOf(std::span<const float> samples) {
    const std::unique_ptr<ebur128_state, FreeChain> state(ebur128_init(1, kSampleRate, EBUR128_MODE_I));
    ebur128_set_channel(state.get(), 0, EBUR128_DUAL_MONO); // as heard from both loudspeakers
    ebur128_add_frames_float(state.get(), samples.data(), samples.size());
    double lufs = -HUGE_VAL;
    ebur128_loudness_global(state.get(), &lufs);
    return lufs;
}

Result<std::vector<float>> polishVoice(std::span<const float> raw) {
    auto low = filtered(raw, "highpass=f=80");
    if (!low) return low;
    auto even = filtered(withoutRoomNoise(*low), "acompressor=threshold=0.1:ratio=3:attack=5:release=120");
    if (!even) return even;
    const double lufs = loudnessOf(*even);
    if (!std::isfinite(lufs) || lufs < -60) return even; // silence has no gain
    const std::string limiter =
        ",aresample=192000,alimiter=limit=0.8414:level=0:attack=5:release=50:latency=1";
    return filtered(*even, "volume=" + fixed(kVoiceLufs - lufs, 6) + "dB" + limiter);
}

} // namespace jg
