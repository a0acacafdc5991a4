#include "film/reader.h"

#include "film/convert.h"
#include "film/demuxer.h"
#include "film/frame_cache.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace jg {

namespace {

Error cancelled() {
    return fail(ErrorCode::Cancelled, "Stopped.");
}

ff::Codec openDecoder(const AVStream* stream) {
    const AVCodec* codec = avcodec_find_decoder(stream->codecpar->codec_id);
    if (!codec) return nullptr;
    ff::Codec context(avcodec_alloc_context3(codec));
    if (avcodec_parameters_to_context(context.get(), stream->codecpar) < 0) return nullptr;
    context->pkt_timebase = stream->time_base;
    context->thread_count = 0;
    context->max_pixels = kMostPixels;
    if (avcodec_open2(context.get(), codec, nullptr) < 0) return nullptr;
    return context;
}

std::int64_t timeOf(const AVFrame* frame) {
    return frame->best_effort_timestamp != AV_NOPTS_VALUE ? frame->best_effort_timestamp : frame->pts;
}

} // namespace

class Reader::Impl {
public:
    Impl(Demuxer demuxer, std::size_t cacheBytes)
        : demuxer_(std::move(demuxer))
        , cache_(cacheBytes) {}

    Status prepare(const std::filesystem::path& path, std::stop_token stop);
    Result<const AVFrame*> frame(std::int64_t n, std::stop_token stop);

    FilmInfo info;
    FrameCache& cache() { return cache_; }
    std::int64_t packets() const { return packetsDecoded_; }

private:
    Status indexFromPackets(std::stop_token stop);
    Status indexByDecoding(std::stop_token stop);
    Status confirmTail(std::stop_token stop);
    Status startAt(std::int64_t n);
    /// Next decoded frame, or nothing at the end. Damaged packets are passed over.
    Result<const AVFrame*> next(std::stop_token stop);
    std::int64_t numberOf(const AVFrame* frame) const;
    void rewind();

    Demuxer demuxer_;
    FrameCache cache_;
    ff::Codec decoder_;
    ff::Packet packet_{av_packet_alloc()};
    ff::Frame decoded_{av_frame_alloc()};
    std::int64_t position_ = -1; ///< number of the last decoded frame; -1 = nowhere
    bool draining_ = false;
    bool countFrames_ = false; ///< the film has no usable times: frames are counted from the start
    std::int64_t counted_ = 0;
    std::int64_t packetsDecoded_ = 0;
};

Status Reader::Impl::prepare(const std::filesystem::path& path, std::stop_token stop) {
    info = factsOf(demuxer_);
    if (static_cast<std::int64_t>(info.width) * info.height > kMostPixels)
        return fail(ErrorCode::BadInput,
                    path.filename().string() + " claims a picture of " + std::to_string(info.width) + " x " +
                        std::to_string(info.height) + ", larger than any phone's. It was not opened.");
    decoder_ = openDecoder(demuxer_.video());
    if (!decoder_)
        return fail(ErrorCode::BadInput, path.filename().string() + " is coded as " + info.codec +
                                             ", which can't be decoded here.");
    std::set<std::int64_t> distinct;
    for (const PacketEntry& p : demuxer_.packets) distinct.insert(p.pts);
    const bool timed = distinct.size() == demuxer_.packets.size() && !distinct.contains(AV_NOPTS_VALUE);
    Status indexed = timed ? indexFromPackets(stop) : indexByDecoding(stop);
    if (!indexed) return indexed;
    if (info.pts.empty())
        return fail(ErrorCode::Damaged,
                    path.filename().string() + " is damaged: none of its pictures can be decoded.");
    info.durationS = secondsOf(Pts{info.pts.back().value - info.pts.front().value}, info.timeBase);
    if (info.playRate.toDouble() > 0) info.durationS += 1.0 / info.playRate.toDouble();
    const auto stated = std::max<std::int64_t>(info.statedFrames, 0);
    info.complete = info.complete && demuxer_.readToEnd && (stated == 0 || info.frames() >= stated - 1);
    if (info.frames() > 2) {
        std::int64_t least = INT64_MAX, most = 0;
        for (std::size_t i = 1; i < info.pts.size(); ++i) {
            const std::int64_t step = info.pts[i].value - info.pts[i - 1].value;
            least = std::min(least, step);
            most = std::max(most, step);
        }
        // Rounding to the time base makes steps differ by one unit in a film of constant rate.
        info.variableRate = most - least > 1 + least / 10;
    }
    return Done{};
}

Status Reader::Impl::indexFromPackets(std::stop_token stop) {
    for (const PacketEntry& p : demuxer_.packets) info.pts.push_back(Pts{p.pts});
    std::sort(info.pts.begin(), info.pts.end());
    return confirmTail(stop);
}

Status Reader::Impl::indexByDecoding(std::stop_token stop) {
    countFrames_ = true;
    rewind();
    for (;;) {
        auto frame = next(stop);
        if (!frame) return frame.error();
        if (!*frame) break;
        info.pts.push_back(Pts{counted_ - 1});
    }
    // Times are counted in frames of the play rate.
    if (info.playRate.num > 0) info.timeBase = {info.playRate.den, info.playRate.num};
    position_ = -1;
    return Done{};
}

/// The last pictures of a cut-off film may have packets that do not decode: they are not counted.
Status Reader::Impl::confirmTail(std::stop_token stop) {
    while (!info.pts.empty()) {
        const std::int64_t last = info.frames() - 1;
        auto frame = this->frame(last, stop);
        if (frame) return Done{};
        if (frame.error().code == ErrorCode::Cancelled) return frame.error();
        info.pts.pop_back();
        info.complete = false;
        position_ = -1;
    }
    return Done{};
}

void Reader::Impl::rewind() {
    // Some containers refuse a time before their start, some know no times at all: the first byte always
    // works.
    const std::int64_t start =
        demuxer_.video()->start_time == AV_NOPTS_VALUE ? 0 : demuxer_.video()->start_time;
    if (avformat_seek_file(demuxer_.input.get(), demuxer_.stream, INT64_MIN, start, start, 0) < 0)
        av_seek_frame(demuxer_.input.get(), demuxer_.stream, 0, AVSEEK_FLAG_BYTE);
    avcodec_flush_buffers(decoder_.get());
    draining_ = false;
    counted_ = 0;
    position_ = -1;
}

Status Reader::Impl::startAt(std::int64_t n) {
    if (countFrames_) {
        rewind();
        return Done{};
    }
    const std::int64_t target = info.pts[static_cast<std::size_t>(n)].value;
    auto key = std::upper_bound(demuxer_.keys.begin(), demuxer_.keys.end(), target);
    if (key == demuxer_.keys.begin()) {
        rewind();
        return Done{};
    }
    --key;
    if (avformat_seek_file(demuxer_.input.get(), demuxer_.stream, INT64_MIN, *key, *key, 0) < 0) {
        rewind();
        return Done{};
    }
    avcodec_flush_buffers(decoder_.get());
    draining_ = false;
    position_ = -1;
    return Done{};
}

Result<const AVFrame*> Reader::Impl::next(std::stop_token stop) {
    for (;;) {
        if (stop.stop_requested()) {
            position_ = -1;
            return cancelled();
        }
        const int got = avcodec_receive_frame(decoder_.get(), decoded_.get());
        if (got >= 0) {
            if (decoded_->flags & AV_FRAME_FLAG_DISCARD) continue;
            ++counted_;
            position_ = numberOf(decoded_.get());
            return decoded_.get();
        }
        if (got == AVERROR_EOF || draining_) return static_cast<const AVFrame*>(nullptr);
        int read = 0;
        while ((read = av_read_frame(demuxer_.input.get(), packet_.get())) >= 0 &&
               packet_->stream_index != demuxer_.stream)
            av_packet_unref(packet_.get());
        if (read < 0) {
            avcodec_send_packet(decoder_.get(), nullptr);
            draining_ = true;
            continue;
        }
        ++packetsDecoded_;
        avcodec_send_packet(decoder_.get(), packet_.get());
        av_packet_unref(packet_.get());
    }
}

std::int64_t Reader::Impl::numberOf(const AVFrame* frame) const {
    if (countFrames_) return counted_ - 1;
    const auto it = std::lower_bound(info.pts.begin(), info.pts.end(), Pts{timeOf(frame)});
    if (it == info.pts.end() || it->value != timeOf(frame)) return -1;
    return it - info.pts.begin();
}

Result<const AVFrame*> Reader::Impl::frame(std::int64_t n, std::stop_token stop) {
    if (n < 0 || n >= info.frames())
        return fail(ErrorCode::BadInput, "The film has no frame " + std::to_string(n) +
                                             ": it has frames 0 to " + std::to_string(info.frames() - 1) +
                                             ".");
    if (const AVFrame* hit = cache_.find(n)) return hit;
    // A short way ahead is decoded on; anything else starts again from its key picture.
    constexpr std::int64_t kShortWay = 12;
    bool started = position_ >= 0 && n > position_ && n - position_ <= kShortWay && !draining_;
    for (int tries = 0; tries < 2; ++tries) {
        if (!started)
            if (auto s = startAt(n); !s) return s.error();
        for (;;) {
            auto got = next(stop);
            if (!got) return got.error();
            if (!*got) break;
            if (position_ >= 0) cache_.put(position_, *got, n);
            if (position_ == n) {
                // The cache may have dropped it under a tiny budget: the decoder's own frame is still valid.
                const AVFrame* kept = cache_.find(n);
                return kept ? kept : *got;
            }
            if (position_ > n && n >= 0 && started) break;
        }
        position_ = -1;
        started = false;
    }
    return fail(ErrorCode::Damaged, "Frame " + std::to_string(n) + " is damaged and can't be shown.");
}

Reader::Reader(std::unique_ptr<Impl> impl)
    : impl_(std::move(impl)) {}
Reader::~Reader() = default;

Result<std::unique_ptr<Reader>> Reader::open(const std::filesystem::path& path, ReaderOptions options,
                                             std::stop_token stop) {
    av_log_set_level(AV_LOG_QUIET);
    auto demuxer = openDemuxer(path, stop);
    if (!demuxer) return demuxer.error();
    auto impl = std::make_unique<Impl>(std::move(*demuxer), options.cacheBytes);
    if (auto ready = impl->prepare(path, stop); !ready) return ready.error();
    return std::unique_ptr<Reader>(new Reader(std::move(impl)));
}

const FilmInfo& Reader::info() const {
    return impl_->info;
}

std::size_t Reader::cacheBytes() const {
    return impl_->cache().bytes();
}

std::int64_t Reader::packetsDecoded() const {
    return impl_->packets();
}

Result<Picture> Reader::picture(FrameNumber n, std::stop_token stop) {
    auto frame = impl_->frame(n.value, stop);
    if (!frame) return frame.error();
    return toPicture(*frame, impl_->info);
}

double Reader::Grey::mean() const {
    if (pixels.empty()) return 0;
    return std::accumulate(pixels.begin(), pixels.end(), 0.0) / (255.0 * static_cast<double>(pixels.size()));
}

Result<Reader::Grey> Reader::grey(FrameNumber n, int width, std::stop_token stop) {
    auto found = impl_->frame(n.value, stop);
    if (!found) return found.error();
    const AVFrame* frame = *found;
    const int height = std::max(1, width * frame->height / std::max(1, frame->width));
    const ff::Sws sws(sws_getContext(frame->width, frame->height, static_cast<AVPixelFormat>(frame->format),
                                     width, height, AV_PIX_FMT_GRAY8, SWS_AREA, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, "This film's pixel format can't be checked.");
    Grey grey{width, height,
              std::vector<std::uint8_t>(static_cast<std::size_t>(width) * static_cast<std::size_t>(height))};
    std::uint8_t* planes[4] = {grey.pixels.data(), nullptr, nullptr, nullptr};
    const int strides[4] = {width, 0, 0, 0};
    sws_scale(sws.get(), frame->data, frame->linesize, 0, frame->height, planes, strides);
    return grey;
}

} // namespace jg
