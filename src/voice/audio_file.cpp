// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/audio_file.h"

#include "base/file_store.h"
#include "voice/microphone.h"

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/log.h>
#include <libswresample/swresample.h>
}

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <memory>

namespace jg {

namespace {

struct Free {
    void operator()(AVFormatContext* p) const { avformat_close_input(&p); }
    void operator()(AVCodecContext* p) const { avcodec_free_context(&p); }
    void operator()(AVFrame* p) const { av_frame_free(&p); }
    void operator()(AVPacket* p) const { av_packet_free(&p); }
    void operator()(SwrContext* p) const { swr_free(&p); }
};
template <typename T>
using Owned = std::unique_ptr<T, Free>;

/// Two hours (own choice): a false sample rate can't take all memory.
constexpr std::size_t kLongest = std::size_t{kSampleRate} * 7200;

/// More no microphone has; the resampler itself breaks on many more.
constexpr int kMostChannels = 8;

/// Decodes one stream and resamples it to mono float.
class SoundDecoder {
public:
    Status run(AVFormatContext* input, int stream, std::vector<float>& out, const std::stop_token& stop) {
        const AVCodecParameters* p = input->streams[stream]->codecpar;
        const AVCodec* codec = avcodec_find_decoder(p->codec_id);
        codec_.reset(avcodec_alloc_context3(codec));
        if (!codec || avcodec_parameters_to_context(codec_.get(), p) < 0 ||
            avcodec_open2(codec_.get(), codec, nullptr) < 0)
            return fail(ErrorCode::BadInput, msg("audio-file.not-decoded"));
        if (p->ch_layout.nb_channels > kMostChannels)
            return fail(ErrorCode::BadInput,
                        msg("audio-file.too-many-channels", {{"channels", p->ch_layout.nb_channels}}));
        const Owned<AVPacket> packet(av_packet_alloc());
        while (out.size() < kLongest && av_read_frame(input, packet.get()) >= 0) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("audio-file.cancelled"));
            if (packet->stream_index == stream) avcodec_send_packet(codec_.get(), packet.get());
            av_packet_unref(packet.get());
            receive(out);
        }
        avcodec_send_packet(codec_.get(), nullptr);
        receive(out);
        if (swr_) convert(nullptr, 0, out);
        return Done{};
    }

private:
    void receive(std::vector<float>& out) {
        while (avcodec_receive_frame(codec_.get(), frame_.get()) >= 0) {
            if (!fits()) continue; // a stream may not change what it is half way
            if (!swr_) {
                SwrContext* raw = nullptr;
                AVChannelLayout mono{};
                av_channel_layout_default(&mono, 1);
                swr_alloc_set_opts2(&raw, &mono, AV_SAMPLE_FMT_FLT, kSampleRate, &frame_->ch_layout,
                                    static_cast<AVSampleFormat>(frame_->format), frame_->sample_rate, 0,
                                    nullptr);
                Owned<SwrContext> made(raw);
                if (swr_init(raw) < 0) return;
                swr_ = std::move(made);
                format_ = frame_->format;
                rate_ = frame_->sample_rate;
                channels_ = frame_->ch_layout.nb_channels;
            }
            convert(const_cast<const std::uint8_t**>(frame_->extended_data), frame_->nb_samples, out);
        }
    }

    /// Whether a frame is of the kind that the resampler was made for.
    bool fits() const {
        const int channels = frame_->ch_layout.nb_channels;
        if (!swr_) return channels > 0 && channels <= kMostChannels;
        return frame_->format == format_ && frame_->sample_rate == rate_ && channels == channels_;
    }

    void convert(const std::uint8_t** in, int count, std::vector<float>& out) {
        const int room = swr_get_out_samples(swr_.get(), count);
        if (room <= 0) return;
        const std::size_t before = out.size();
        out.resize(before + static_cast<std::size_t>(room));
        auto* target = reinterpret_cast<std::uint8_t*>(out.data() + before);
        const int got = swr_convert(swr_.get(), &target, room, in, count);
        out.resize(before + static_cast<std::size_t>(std::max(0, got)));
    }

    Owned<AVCodecContext> codec_;
    Owned<SwrContext> swr_;
    Owned<AVFrame> frame_{av_frame_alloc()};
    int format_ = 0, rate_ = 0, channels_ = 0; ///< that swr_ was made for
};

} // namespace

Result<std::vector<float>> readSound(const std::filesystem::path& path, const std::stop_token& stop) {
    av_log_set_level(AV_LOG_QUIET);
    std::error_code ec;
    if (!std::filesystem::exists(path, ec))
        return fail(ErrorCode::NotFound,
                    msg("audio-file.there-is-no-sound-file-path", {{"path", path.string()}}));
    if (!std::filesystem::is_regular_file(path, ec))
        return fail(ErrorCode::BadInput,
                    msg("audio-file.path-is-no-file", {{"path", path.filename().string()}}));
    AVFormatContext* raw = avformat_alloc_context();
    // Only what holds its own sound, as with films.
    raw->format_whitelist = av_strdup("wav,w64,caf,aiff,flac,mp3,aac,ogg,mov,mp4,matroska,webm");
    raw->protocol_whitelist = av_strdup("file");
    if (avformat_open_input(&raw, path.c_str(), nullptr, nullptr) < 0)
        return fail(ErrorCode::BadInput,
                    msg("audio-file.path-is-not-a-sound-file", {{"path", path.filename().string()}}));
    const Owned<AVFormatContext> input(raw);
    const int stream = avformat_find_stream_info(raw, nullptr) < 0
                           ? -1
                           : av_find_best_stream(raw, AVMEDIA_TYPE_AUDIO, -1, -1, nullptr, 0);
    if (stream < 0)
        return fail(ErrorCode::BadInput,
                    msg("audio-file.path-holds-no-sound", {{"path", path.filename().string()}}));
    std::vector<float> samples;
    SoundDecoder decoder;
    if (auto done = decoder.run(raw, stream, samples, stop); !done)
        return fail(done.error().code,
                    msg("audio-file.why", {{"file", path.filename().string()}, {"why", done.error().text}}));
    return samples;
}

void WavWriter::writeHeader() {
    const auto put = [&](std::uint32_t value, int bytes) {
        for (int i = 0; i < bytes; ++i) out_.put(static_cast<char>((value >> (8 * i)) & 0xff));
    };
    const auto bytes = static_cast<std::uint32_t>(samples_ * 2);
    out_.seekp(0);
    out_.write("RIFF", 4);
    put(36 + bytes, 4);
    out_.write("WAVEfmt ", 8);
    put(16, 4);
    put(1, 2);
    put(1, 2);
    put(kSampleRate, 4);
    put(kSampleRate * 2, 4);
    put(2, 2);
    put(16, 2);
    out_.write("data", 4);
    put(bytes, 4);
    out_.seekp(0, std::ios::end);
}

Result<WavWriter> WavWriter::open(const std::filesystem::path& path) {
    WavWriter w;
    w.path_ = path;
    w.out_.open(path, std::ios::binary | std::ios::trunc);
    if (!w.out_) return writeError(path, errno ? errno : EIO);
    w.writeHeader();
    return w;
}

Status WavWriter::write(std::span<const std::int16_t> samples) {
    out_.write(reinterpret_cast<const char*>(samples.data()),
               static_cast<std::streamsize>(samples.size() * 2));
    samples_ += static_cast<std::int64_t>(samples.size());
    if (samples_ - flushed_ >= kSampleRate) { // once a second the file is complete as it stands
        writeHeader();
        out_.flush();
        flushed_ = samples_;
    }
    if (!out_) return writeError(path_, errno ? errno : EIO);
    return Done{};
}

Status WavWriter::finish() {
    writeHeader();
    out_.close();
    if (!out_) return writeError(path_, errno ? errno : EIO);
    return Done{};
}

} // namespace jg
