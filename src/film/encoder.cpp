// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/encoder.h"

#include "base/number.h"

#include "film/output.h"

#include "base/file_store.h"
#include "film/ffmpeg_handles.h"
#include "film/planes.h"

#include <algorithm>
#include <cerrno>
#include <optional>

namespace jg {

namespace {
constexpr int kSoundChannels = 2;
}

class Encoder::Impl {
public:
    Impl(std::filesystem::path path, EncodeSettings settings)
        : path_(std::move(path))
        , settings_(std::move(settings)) {}

    Status open();
    void setPicture(const std::uint8_t* bgrx, int stride, int rows);
    Status setPart(const AVFrame& planes, int left, int top);
    Status repeatPicture();
    void skipPicture() { ++pictures_; }
    Status addSound(std::span<const float> samples);
    Status finish();

private:
    Status openVideo();
    Status openAudio();
    void openCaptions();
    void writeChapters();
    Status writeCaptions();
    Status writeCaption(const std::string& text, std::int64_t startMs, std::int64_t endMs);
    Status encode(AVCodecContext* codec, AVStream* stream, const AVFrame* frame);
    Status encodeFullAudioFrames(bool flush);

    std::filesystem::path path_;
    EncodeSettings settings_;
    Output output_;
    ff::Codec video_;
    ff::Codec audio_;
    AVStream* videoStream_ = nullptr;
    AVStream* audioStream_ = nullptr;
    AVStream* captionStream_ = nullptr;
    std::optional<BgrxToPlanes> toPlanes_;
    ff::Frame picture_;
    ff::Frame sound_{av_frame_alloc()};
    ff::Packet packet_{av_packet_alloc()};
    std::vector<float> pending_;
    bool hasPicture_ = false;
    std::int64_t pictures_ = 0;
    std::int64_t samples_ = 0;
};

Status Encoder::Impl::open() {
    if (settings_.width % 2 || settings_.height % 2 || settings_.width <= 0 || settings_.height <= 0)
        return fail(ErrorCode::BadInput,
                    msg("encoder.odd-size", {{"width", settings_.width}, {"height", settings_.height}}));
    AVFormatContext* raw = nullptr;
    avformat_alloc_output_context2(&raw, nullptr, "mp4", path_.c_str());
    output_.reset(raw);
    output_->flags |= AVFMT_FLAG_BITEXACT;
    if (auto opened = openVideo(); !opened) return opened;
    if (settings_.sampleRate > 0)
        if (auto opened = openAudio(); !opened) return opened;
    openCaptions();
    writeChapters();
    if (!settings_.title.empty()) av_dict_set(&output_->metadata, "title", settings_.title.c_str(), 0);
    AVDictionary* options = nullptr;
    av_dict_set(&options, "movflags",
                settings_.captureFps > 0 ? "+faststart+use_metadata_tags" : "+faststart", 0);
    if (settings_.captureFps > 0)
        av_dict_set(&output_->metadata, "com.android.capture.fps", fixed(settings_.captureFps, 6).c_str(), 0);
    int error = avio_open(&output_->pb, path_.c_str(), AVIO_FLAG_WRITE);
    if (error >= 0) error = avformat_write_header(output_.get(), &options);
    av_dict_free(&options);
    if (error < 0) return outputError(path_, error);
    return writeCaptions();
}

Status Encoder::Impl::openVideo() {
    const PlainNumbers plain; // its options are text
    const AVCodec* codec = avcodec_find_encoder_by_name("libx264");
    if (!codec) return fail(ErrorCode::Internal, msg("encoder.this-ffmpeg-cant-write-h-264"));
    video_.reset(avcodec_alloc_context3(codec));
    video_->width = settings_.width;
    video_->height = settings_.height;
    video_->time_base = {static_cast<int>(settings_.fps.den), static_cast<int>(settings_.fps.num)};
    video_->framerate = {static_cast<int>(settings_.fps.num), static_cast<int>(settings_.fps.den)};
    video_->pix_fmt = AV_PIX_FMT_YUV420P;
    video_->colorspace = AVCOL_SPC_BT709;
    video_->color_primaries = AVCOL_PRI_BT709;
    video_->color_trc = AVCOL_TRC_BT709;
    video_->color_range = AVCOL_RANGE_MPEG;
    video_->gop_size = settings_.keyInterval;
    video_->thread_count = 2; // fixed, so that the same input gives the same file
    video_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER | AV_CODEC_FLAG_BITEXACT;
    av_opt_set(video_->priv_data, "preset", settings_.preset.c_str(), 0);
    av_opt_set(video_->priv_data, "crf", std::to_string(settings_.quality).c_str(), 0);
    if (avcodec_open2(video_.get(), codec, nullptr) < 0)
        return fail(ErrorCode::Internal, msg("encoder.h264-fails"));
    videoStream_ = avformat_new_stream(output_.get(), nullptr);
    videoStream_->time_base = video_->time_base;
    videoStream_->avg_frame_rate = video_->framerate;
    avcodec_parameters_from_context(videoStream_->codecpar, video_.get());
    if (settings_.rotationDeg != 0) {
        auto* matrix = reinterpret_cast<std::int32_t*>(
            av_stream_new_side_data(videoStream_, AV_PKT_DATA_DISPLAYMATRIX, 9 * sizeof(std::int32_t)));
        av_display_rotation_set(matrix, settings_.rotationDeg);
    }
    toPlanes_.emplace(settings_.width, settings_.height);
    if (!*toPlanes_)
        return fail(ErrorCode::BadInput, msg("encoder.no-film-of-this-size",
                                             {{"width", settings_.width}, {"height", settings_.height}}));
    picture_ = writtenFrame(settings_.width, settings_.height);
    if (!picture_) return fail(ErrorCode::Internal, msg("scrub-copy.there-is-no-memory-left"));
    return Done{};
}

Status Encoder::Impl::openAudio() {
    const AVCodec* codec = avcodec_find_encoder(AV_CODEC_ID_AAC);
    audio_.reset(avcodec_alloc_context3(codec));
    audio_->sample_fmt = AV_SAMPLE_FMT_FLTP;
    audio_->sample_rate = settings_.sampleRate;
    audio_->bit_rate = 128000;
    // Loudness is told for two channels; one alone reads 3 dB under it in other programs.
    av_channel_layout_default(&audio_->ch_layout, kSoundChannels);
    audio_->time_base = {1, settings_.sampleRate};
    audio_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER | AV_CODEC_FLAG_BITEXACT;
    if (avcodec_open2(audio_.get(), codec, nullptr) < 0)
        return fail(ErrorCode::Internal, msg("encoder.the-aac-encoder-does-not-start"));
    audioStream_ = avformat_new_stream(output_.get(), nullptr);
    audioStream_->time_base = audio_->time_base;
    avcodec_parameters_from_context(audioStream_->codecpar, audio_.get());
    av_dict_set(&audioStream_->metadata, "language", settings_.language.c_str(), 0);
    sound_->format = AV_SAMPLE_FMT_FLTP;
    sound_->sample_rate = settings_.sampleRate;
    av_channel_layout_copy(&sound_->ch_layout, &audio_->ch_layout);
    sound_->nb_samples = audio_->frame_size;
    av_frame_get_buffer(sound_.get(), 0);
    return Done{};
}

namespace {

/// How a text track is described (3GPP TS 26.245, from memory): in the middle at the bottom, white, one font.
constexpr std::uint8_t kTextSample[] = {0, 0,  0,   0,   1,   255, 0, 0, 0, 0,  0,   0,   0,   0,   0,   0,
                                        0, 0,  0,   0,   0,   0,   0, 1, 0, 18, 255, 255, 255, 255, 0,   0,
                                        0, 18, 'f', 't', 'a', 'b', 0, 1, 0, 1,  5,   'S', 'e', 'r', 'i', 'f'};

} // namespace

void Encoder::Impl::openCaptions() {
    if (settings_.captions.empty()) return;
    captionStream_ = avformat_new_stream(output_.get(), nullptr);
    AVCodecParameters* par = captionStream_->codecpar;
    par->codec_type = AVMEDIA_TYPE_SUBTITLE;
    par->codec_id = AV_CODEC_ID_MOV_TEXT;
    par->extradata =
        static_cast<std::uint8_t*>(av_mallocz(sizeof kTextSample + AV_INPUT_BUFFER_PADDING_SIZE));
    std::copy(std::begin(kTextSample), std::end(kTextSample), par->extradata);
    par->extradata_size = sizeof kTextSample;
    captionStream_->time_base = {1, 1000};
    av_dict_set(&captionStream_->metadata, "language", settings_.language.c_str(), 0);
}

/// A sample is its length in two bytes and its text.
Status Encoder::Impl::writeCaption(const std::string& text, std::int64_t startMs, std::int64_t endMs) {
    constexpr std::size_t kMost = 0xFFFF;
    const std::size_t length = std::min(text.size(), kMost);
    if (av_new_packet(packet_.get(), static_cast<int>(length) + 2) < 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.there-is-no-memory-left"));
    packet_->data[0] = static_cast<std::uint8_t>(length >> 8);
    packet_->data[1] = static_cast<std::uint8_t>(length & 0xFF);
    std::copy_n(text.begin(), length, packet_->data + 2);
    packet_->stream_index = captionStream_->index;
    packet_->pts = packet_->dts = startMs;
    packet_->duration = endMs - startMs;
    packet_->flags |= AV_PKT_FLAG_KEY;
    av_packet_rescale_ts(packet_.get(), {1, 1000}, captionStream_->time_base);
    const int error = av_interleaved_write_frame(output_.get(), packet_.get());
    return error < 0 ? Status(outputError(path_, error)) : Status(Done{});
}

/// The gaps between captions are samples without a word, else the last caption would stand on.
Status Encoder::Impl::writeCaptions() {
    std::int64_t at = 0;
    for (const Caption& c : settings_.captions) {
        if (c.startMs > at)
            if (auto gap = writeCaption("", at, c.startMs); !gap) return gap;
        if (auto written = writeCaption(c.text, c.startMs, c.endMs); !written) return written;
        at = c.endMs;
    }
    return Done{};
}

void Encoder::Impl::writeChapters() {
    const std::size_t n = settings_.chapters.size();
    if (n == 0) return;
    output_->chapters = static_cast<AVChapter**>(av_calloc(n, sizeof(AVChapter*)));
    output_->nb_chapters = static_cast<unsigned>(n);
    for (std::size_t i = 0; i < n; ++i) {
        const Chapter& c = settings_.chapters[i];
        auto* chapter = static_cast<AVChapter*>(av_mallocz(sizeof(AVChapter)));
        chapter->id = static_cast<std::int64_t>(i);
        chapter->time_base = {1, 1000};
        chapter->start = c.startMs;
        chapter->end = c.endMs;
        av_dict_set(&chapter->metadata, "title", c.title.c_str(), 0);
        output_->chapters[i] = chapter;
    }
}

Status Encoder::Impl::encode(AVCodecContext* codec, AVStream* stream, const AVFrame* frame) {
    int error = avcodec_send_frame(codec, frame);
    while (error >= 0) {
        error = avcodec_receive_packet(codec, packet_.get());
        if (error == AVERROR(EAGAIN) || error == AVERROR_EOF) return Done{};
        if (error < 0) break;
        if (codec == video_.get() && packet_->duration == 0) packet_->duration = 1;
        packet_->stream_index = stream->index;
        av_packet_rescale_ts(packet_.get(), codec->time_base, stream->time_base);
        error = av_interleaved_write_frame(output_.get(), packet_.get());
    }
    if (error < 0) return outputError(path_, error);
    return Done{};
}

void Encoder::Impl::setPicture(const std::uint8_t* bgrx, int stride, int rows) {
    av_frame_make_writable(picture_.get());
    toPlanes_->convert(bgrx, stride, *picture_, rows > 0 && hasPicture_ ? rows : settings_.height);
    hasPicture_ = true;
}

Status Encoder::Impl::setPart(const AVFrame& planes, int left, int top) {
    if (!hasPicture_) return fail(ErrorCode::Internal, msg("encoder.there-is-no-picture-to-repeat"));
    if (left < 0 || top < 0 || left % 2 != 0 || top % 2 != 0 || planes.format != picture_->format ||
        left + planes.width > picture_->width || top + planes.height > picture_->height)
        return fail(ErrorCode::BadInput, msg("encoder.no-such-place"));
    av_frame_make_writable(picture_.get());
    for (int p = 0; p < 3; ++p) {
        const int half = p == 0 ? 1 : 2, stride = picture_->linesize[p];
        av_image_copy_plane(picture_->data[p] + std::ptrdiff_t{top / half} * stride + left / half, stride,
                            planes.data[p], planes.linesize[p], planes.width / half, planes.height / half);
    }
    return Done{};
}

Status Encoder::Impl::repeatPicture() {
    if (!hasPicture_) return fail(ErrorCode::Internal, msg("encoder.there-is-no-picture-to-repeat"));
    picture_->pts = pictures_++;
    return encode(video_.get(), videoStream_, picture_.get());
}

Status Encoder::Impl::addSound(std::span<const float> samples) {
    if (!audio_) return fail(ErrorCode::Internal, msg("encoder.this-film-was-opened-without-sound"));
    pending_.insert(pending_.end(), samples.begin(), samples.end());
    return encodeFullAudioFrames(false);
}

Status Encoder::Impl::encodeFullAudioFrames(bool flush) {
    const auto size = static_cast<std::size_t>(audio_->frame_size);
    std::size_t at = 0;
    while (pending_.size() - at >= size || (flush && at < pending_.size())) {
        const std::size_t n = std::min(size, pending_.size() - at);
        av_frame_make_writable(sound_.get());
        for (int c = 0; c < kSoundChannels; ++c)
            std::copy_n(pending_.begin() + static_cast<std::ptrdiff_t>(at), n,
                        reinterpret_cast<float*>(sound_->data[c]));
        sound_->nb_samples = static_cast<int>(n);
        sound_->pts = samples_;
        samples_ += static_cast<std::int64_t>(n);
        at += n;
        if (auto done = encode(audio_.get(), audioStream_, sound_.get()); !done) return done;
    }
    pending_.erase(pending_.begin(), pending_.begin() + static_cast<std::ptrdiff_t>(at));
    return Done{};
}

Status Encoder::Impl::finish() {
    if (audio_) {
        if (auto done = encodeFullAudioFrames(true); !done) return done;
        if (auto done = encode(audio_.get(), audioStream_, nullptr); !done) return done;
    }
    if (auto done = encode(video_.get(), videoStream_, nullptr); !done) return done;
    int error = av_write_trailer(output_.get());
    if (error >= 0) error = avio_closep(&output_->pb);
    if (error < 0) return outputError(path_, error);
    return Done{};
}

FrameHandle planesOf(const std::uint8_t* bgrx, int stride, int width, int height) {
    if (width <= 0 || height <= 0 || width % 2 != 0 || height % 2 != 0) return nullptr;
    BgrxToPlanes converter(width, height);
    ff::Frame planes = writtenFrame(width, height);
    if (!planes || !converter) return nullptr;
    converter.convert(bgrx, stride, *planes, height);
    return FrameHandle(planes.release(), ff::Free());
}

Encoder::Encoder(std::unique_ptr<Impl> impl)
    : impl_(std::move(impl)) {}
Encoder::~Encoder() = default;

Result<std::unique_ptr<Encoder>> Encoder::open(const std::filesystem::path& path,
                                               const EncodeSettings& settings) {
    av_log_set_level(AV_LOG_QUIET);
    auto impl = std::make_unique<Impl>(path, settings);
    if (auto opened = impl->open(); !opened) return opened.error();
    return std::unique_ptr<Encoder>(new Encoder(std::move(impl)));
}

Status Encoder::addPicture(const std::uint8_t* bgrx, int stride) {
    impl_->setPicture(bgrx, stride, 0);
    return impl_->repeatPicture();
}
void Encoder::setPicture(const std::uint8_t* bgrx, int stride, int rows) {
    impl_->setPicture(bgrx, stride, rows);
}
Status Encoder::setPart(const AVFrame& planes, int left, int top) {
    return impl_->setPart(planes, left, top);
}
Status Encoder::repeatPicture() {
    return impl_->repeatPicture();
}
void Encoder::skipPicture() {
    impl_->skipPicture();
}
Status Encoder::addSound(std::span<const float> samples) {
    return impl_->addSound(samples);
}
Status Encoder::finish() {
    return impl_->finish();
}

} // namespace jg
