// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/scrub_copy.h"

#include "film/convert.h"
#include "film/output.h"

namespace jg {

namespace {

/// Motion JPEG in MOV, one packet a picture.
class JpegFilm {
public:
    Status open(const std::filesystem::path& path, int width, int height);
    Status add(const Picture& picture);
    Status finish();
    int width() const { return frame_->width; }
    int height() const { return frame_->height; }

private:
    Status drain();
    std::filesystem::path path_;
    Output out_;
    ff::Codec codec_;
    ff::Frame frame_{av_frame_alloc()};
    ff::Packet packet_{av_packet_alloc()};
    ff::Sws sws_;
    std::int64_t count_ = 0;
};

Status JpegFilm::open(const std::filesystem::path& path, int width, int height) {
    path_ = path;
    AVFormatContext* raw = nullptr;
    if (avformat_alloc_output_context2(&raw, nullptr, "mov", path.c_str()) < 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.a-scrub-copy-cant-be-written"));
    out_.reset(raw);
    const AVCodec* codec = avcodec_find_encoder(AV_CODEC_ID_MJPEG);
    codec_.reset(avcodec_alloc_context3(codec));
    codec_->width = std::max(2, width & ~1);
    codec_->height = std::max(2, height & ~1);
    codec_->pix_fmt = AV_PIX_FMT_YUVJ420P;
    codec_->time_base = {1, 30};
    codec_->flags |= AV_CODEC_FLAG_QSCALE;
    codec_->global_quality = 4 * FF_QP2LAMBDA;
    codec_->thread_count = 1;
    AVStream* stream = avformat_new_stream(out_.get(), nullptr);
    if (avcodec_open2(codec_.get(), codec, nullptr) < 0 || !stream ||
        avcodec_parameters_from_context(stream->codecpar, codec_.get()) < 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.a-scrub-copy-cant-be-written"));
    stream->time_base = codec_->time_base;
    if (const int e = avio_open(&out_->pb, path.c_str(), AVIO_FLAG_WRITE); e < 0)
        return outputError(path_, e);
    if (const int e = avformat_write_header(out_.get(), nullptr); e < 0) return outputError(path_, e);
    frame_->width = codec_->width;
    frame_->height = codec_->height;
    frame_->format = codec_->pix_fmt;
    if (av_frame_get_buffer(frame_.get(), 0) < 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.there-is-no-memory-left"));
    return Done{};
}

Status JpegFilm::add(const Picture& picture) {
    av_frame_make_writable(frame_.get());
    sws_.reset(sws_getCachedContext(sws_.release(), picture.width, picture.height, AV_PIX_FMT_BGR0, width(),
                                    height(), AV_PIX_FMT_YUVJ420P, SWS_BILINEAR, nullptr, nullptr, nullptr));
    if (!sws_) return fail(ErrorCode::Internal, msg("scrub-copy.impossible"));
    const std::uint8_t* planes[4] = {picture.pixels->data(), nullptr, nullptr, nullptr};
    const int strides[4] = {picture.stride(), 0, 0, 0};
    sws_scale(sws_.get(), planes, strides, 0, picture.height, frame_->data, frame_->linesize);
    frame_->pts = count_++;
    frame_->quality = codec_->global_quality;
    if (avcodec_send_frame(codec_.get(), frame_.get()) < 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.impossible"));
    return drain();
}

Status JpegFilm::drain() {
    while (avcodec_receive_packet(codec_.get(), packet_.get()) >= 0) {
        packet_->duration = 1;
        av_packet_rescale_ts(packet_.get(), codec_->time_base, out_->streams[0]->time_base);
        if (const int e = av_write_frame(out_.get(), packet_.get()); e < 0) return outputError(path_, e);
        av_packet_unref(packet_.get());
    }
    return Done{};
}

Status JpegFilm::finish() {
    avcodec_send_frame(codec_.get(), nullptr);
    if (auto drained = drain(); !drained) return drained;
    if (const int e = av_write_trailer(out_.get()); e < 0) return outputError(path_, e);
    if (const int e = avio_closep(&out_->pb); e < 0) return outputError(path_, e);
    return Done{};
}

Picture grey(int width, int height) {
    return {width, height,
            std::make_shared<const std::vector<std::uint8_t>>(
                static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4, std::uint8_t{128})};
}

} // namespace

Status makeScrubCopy(Reader& reader, const std::filesystem::path& path, FileStore& files,
                     std::stop_token stop, const std::function<void(double)>& progress) {
    const FilmInfo& info = reader.info();
    const int width = std::min(kScrubWidth, info.width);
    const int height =
        std::max(2, static_cast<int>(static_cast<std::int64_t>(info.height) * width / info.width));
    return files.publish(path, [&](const std::filesystem::path& temporary) -> Status {
        JpegFilm film;
        if (auto opened = film.open(temporary, width, height); !opened) return opened;
        for (std::int64_t n = 0; n < info.frames(); ++n) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("demuxer.stopped"));
            reader.setTravel(FrameNumber{n}, 1);
            const auto frame = reader.frame(FrameNumber{n}, whenStopped(stop));
            auto picture = frame ? toPicture(**frame, info, width) : Result<Picture>(grey(width, height));
            if (!picture) return picture.error();
            if (auto added = film.add(*picture); !added) return added;
            if (progress) progress(static_cast<double>(n + 1) / static_cast<double>(info.frames()));
        }
        return film.finish();
    });
}

} // namespace jg
