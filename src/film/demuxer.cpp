#include "film/demuxer.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <cstring>

namespace jg {

namespace fs = std::filesystem;

const char* idOf(RateSource source) {
    switch (source) {
    case RateSource::Metadata:
        return "metadata";
    case RateSource::Stated:
        return "stated";
    case RateSource::Assumed:
        return "assumed";
    case RateSource::Unknown:
        break;
    }
    return "unknown";
}

namespace {

Status checkReadable(const fs::path& path) {
    std::error_code ec;
    const std::string name = path.filename().string();
    if (!fs::exists(path, ec) && !ec)
        return fail(ErrorCode::NotFound, "There is no file " + path.string() + ".");
    if (ec)
        return fail(ErrorCode::Unreadable, path.string() + " can't be reached (" + ec.message() +
                                               "). Check the folder's permissions.");
    if (fs::is_directory(path, ec))
        return fail(ErrorCode::BadInput, name + " is a folder. Choose a film file in it.");
    if (fs::file_size(path, ec) == 0 && !ec)
        return fail(ErrorCode::BadInput, name + " is empty. Copy the film again from the phone.");
    return Done{};
}

Status scanPackets(Demuxer& d, std::stop_token stop) {
    const ff::Packet packet(av_packet_alloc());
    int error = 0;
    while ((error = av_read_frame(d.input.get(), packet.get())) >= 0) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, "Stopped.");
        if (packet->stream_index == d.stream && !(packet->flags & AV_PKT_FLAG_DISCARD)) {
            const bool key = packet->flags & AV_PKT_FLAG_KEY;
            d.packets.push_back({packet->pts, key});
        }
        // The key before an edit list's start is discarded for showing and still needed for decoding.
        if (packet->stream_index == d.stream && (packet->flags & AV_PKT_FLAG_KEY) &&
            packet->pts != AV_NOPTS_VALUE)
            d.keys.push_back(packet->pts);
        av_packet_unref(packet.get());
    }
    d.readToEnd = error == AVERROR_EOF;
    std::sort(d.keys.begin(), d.keys.end());
    return Done{};
}

Rational rationalOf(AVRational r) {
    return {r.num, r.den == 0 ? 1 : r.den};
}

void readRotation(const AVStream* stream, FilmInfo& info) {
    const std::uint8_t* data = av_stream_get_side_data(stream, AV_PKT_DATA_DISPLAYMATRIX, nullptr);
    if (!data) return;
    std::array<std::int32_t, 9> m{};
    std::memcpy(m.data(), data, sizeof m);
    const double a = m[0], b = m[1], c = m[3], d = m[4];
    info.mirrored = a * d - b * c < 0;
    // Direction in which the picture's own x axis is shown, counted clockwise.
    const double turn = std::atan2(b, a) * 180.0 / M_PI;
    info.rotationDeg = (static_cast<int>(std::lround(turn / 90.0)) * 90 + 720) % 360;
}

bool hasTag(const AVDictionary* tags, const char* name) {
    return av_dict_get(tags, name, nullptr, AV_DICT_IGNORE_SUFFIX) != nullptr;
}

/// The capture rate some phones write: a number as text, or four bytes of a float.
double taggedRate(const AVDictionary* tags) {
    const AVDictionaryEntry* entry = av_dict_get(tags, "com.android.capture.fps", nullptr, 0);
    if (!entry) return 0;
    const double fps = std::atof(entry->value);
    return fps >= 1 && fps <= 10000 ? fps : 0;
}

} // namespace

Result<Demuxer> openDemuxer(const fs::path& path, std::stop_token stop) {
    if (auto readable = checkReadable(path); !readable) return readable.error();
    const std::string name = path.filename().string();
    AVFormatContext* raw = nullptr;
    int error = avformat_open_input(&raw, path.c_str(), nullptr, nullptr);
    if (error == AVERROR(EACCES))
        return fail(ErrorCode::Unreadable, name + " may not be read. Check its permissions.");
    if (error < 0)
        return fail(ErrorCode::BadInput, name + " is not a film this program can read (" + ff::words(error) +
                                             "). It may be cut off or be another kind of file.");
    Demuxer d;
    d.input.reset(raw);
    if (avformat_find_stream_info(raw, nullptr) < 0)
        return fail(ErrorCode::Damaged, name + " is damaged: nothing in it can be decoded.");
    d.stream = av_find_best_stream(raw, AVMEDIA_TYPE_VIDEO, -1, -1, nullptr, 0);
    const bool attached = d.stream >= 0 && (d.video()->disposition & AV_DISPOSITION_ATTACHED_PIC);
    if (d.stream < 0 || attached)
        return fail(ErrorCode::BadInput,
                    name + " holds no moving picture, only sound or data. Choose the film itself.");
    const AVCodecParameters* p = d.video()->codecpar;
    if (p->width <= 0 || p->height <= 0)
        return fail(ErrorCode::Damaged, name + " is damaged: its picture has no size. Copy the film again.");
    for (unsigned i = 0; i < raw->nb_streams; ++i)
        if (static_cast<int>(i) != d.stream) raw->streams[i]->discard = AVDISCARD_ALL;
    if (auto scanned = scanPackets(d, stop); !scanned) return scanned.error();
    if (d.packets.empty())
        return fail(ErrorCode::Damaged, name + " holds no pictures. Copy the film again from the phone.");
    return d;
}

FilmInfo factsOf(const Demuxer& d) {
    FilmInfo info;
    const AVStream* s = d.video();
    const AVCodecParameters* p = s->codecpar;
    const AVRational sar = av_guess_sample_aspect_ratio(d.input.get(), d.video(), nullptr);
    info.width = p->width;
    info.height = p->height;
    if (sar.num > 0 && sar.den > 0 && sar.num != sar.den)
        info.width = static_cast<int>(std::lround(static_cast<double>(p->width) * sar.num / sar.den));
    readRotation(s, info);
    if (info.rotationDeg % 180 != 0) std::swap(info.width, info.height);
    info.codec = avcodec_get_name(p->codec_id);
    const char* format = av_get_pix_fmt_name(static_cast<AVPixelFormat>(p->format));
    info.pixelFormat = format ? format : "unknown";
    info.timeBase = rationalOf(s->time_base);
    info.playRate = rationalOf(s->avg_frame_rate.num ? s->avg_frame_rate : s->r_frame_rate);
    info.statedFrames = std::max<std::int64_t>(s->nb_frames, 0);
    for (unsigned i = 0; i < d.input->nb_streams; ++i)
        info.audio |= d.input->streams[i]->codecpar->codec_type == AVMEDIA_TYPE_AUDIO;
    info.locationData =
        hasTag(d.input->metadata, "location") || hasTag(d.input->metadata, "com.apple.quicktime.location");
    double tagged = taggedRate(d.input->metadata);
    if (tagged == 0) tagged = taggedRate(s->metadata);
    info.captureRate = tagged > 0 ? CaptureRate{tagged, RateSource::Metadata}
                                  : CaptureRate{info.playRate.toDouble(), RateSource::Assumed};
    return info;
}

} // namespace jg
