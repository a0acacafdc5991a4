// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/demuxer.h"

#include "base/number.h"
#include "film/colour.h"
#include "film/limits.h"

#include <algorithm>
#include <array>
#include <cctype>
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
        return fail(ErrorCode::NotFound, msg("demuxer.there-is-no-file-path", {{"path", path.string()}}));
    if (ec)
        return fail(ErrorCode::Unreadable, msg("demuxer.path-cant-be-reached-message-check",
                                               {{"path", path.string()}, {"message", ec.message()}}));
    if (fs::is_directory(path, ec)) return fail(ErrorCode::BadInput, msg("demuxer.folder", {{"name", name}}));
    if (!fs::is_regular_file(path, ec))
        return fail(ErrorCode::BadInput, msg("demuxer.device", {{"name", name}}));
    if (fs::file_size(path, ec) == 0 && !ec)
        return fail(ErrorCode::BadInput, msg("demuxer.name-is-empty-copy-the-film", {{"name", name}}));
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
    // A mirrored film is mirrored after it is turned.
    const double turn = std::atan2(b, info.mirrored ? -a : a) * 180.0 / M_PI;
    info.rotationDeg = (static_cast<int>(std::lround(turn / 90.0)) * 90 + 720) % 360;
}

/// FFmpeg asks this while it reads and probes.
int shouldStop(void* stop) {
    return static_cast<std::stop_token*>(stop)->stop_requested() ? 1 : 0;
}

/// True when opening told everything that the first decoded picture does not: then no packets are probed.
bool tellsAll(const AVFormatContext& input, int stream) {
    if (stream < 0) return false;
    const AVCodecParameters* p = input.streams[stream]->codecpar;
    return std::strstr(input.iformat->name, "mov") && p->width > 0 && p->height > 0 &&
           p->codec_id != AV_CODEC_ID_NONE && p->extradata_size > 0;
}

bool hasTag(const AVDictionary* tags, const char* name) {
    return av_dict_get(tags, name, nullptr, AV_DICT_IGNORE_SUFFIX) != nullptr;
}

/// Lower-case letters and digits only: makers spell the same word in many ways.
std::string plainWord(const char* text) {
    std::string plain;
    for (const char* c = text; *c; ++c)
        if (std::isalnum(static_cast<unsigned char>(*c)))
            plain += static_cast<char>(std::tolower(static_cast<unsigned char>(*c)));
    return plain;
}

double sensibleRate(const char* text) {
    const double fps = leadingNumber(text).value_or(0);
    return fps >= 1 && fps <= 10000 ? fps : 0;
}

/// The capture rate as cameras write it: com.android.capture.fps, or any tag of like name, or an attribute
/// captureFps="120p" in a block of XML (spellings from memory). 0 = none.
double taggedRate(const AVDictionary* tags) {
    const AVDictionaryEntry* entry = nullptr;
    while ((entry = av_dict_get(tags, "", entry, AV_DICT_IGNORE_SUFFIX)) != nullptr) {
        const std::string key = plainWord(entry->key);
        for (const char* name :
             {"capturefps", "captureframerate", "capturerate", "recordframerate", "recordedfps"})
            if (key.find(name) != std::string::npos)
                if (const double fps = sensibleRate(entry->value); fps > 0) return fps;
        if (const char* attribute = std::strstr(entry->value, "captureFps=\""))
            if (const double fps = sensibleRate(attribute + std::strlen("captureFps=\"")); fps > 0)
                return fps;
    }
    return 0;
}

/// What says where or with what a film was made. Such tags are shown and never leave the house.
std::vector<std::string> privateTags(const AVDictionary* tags) {
    std::vector<std::string> found;
    const AVDictionaryEntry* entry = nullptr;
    while ((entry = av_dict_get(tags, "", entry, AV_DICT_IGNORE_SUFFIX)) != nullptr) {
        const std::string key = plainWord(entry->key);
        for (const char* part : {"location", "gps", "make", "model", "device", "software", "creationdate",
                                 "creationtime", "author", "artist", "androidversion", "serial"})
            if (key.find(part) != std::string::npos) {
                found.push_back(std::string(entry->key) + ": " + entry->value);
                break;
            }
    }
    return found;
}

constexpr const char* kFilmContainers =
    "mov,mp4,matroska,webm,avi,mpegts,mpeg,mpegvideo,flv,asf,ogg,mxf,nut,h264,hevc,"
    "m4v,dv,ivf,yuv4mpegpipe,gif";

Error stopped() {
    return fail(ErrorCode::Cancelled, msg("demuxer.stopped"));
}

} // namespace

Result<Demuxer> openDemuxer(const fs::path& path, std::stop_token stop) {
    if (auto readable = checkReadable(path); !readable) return readable.error();
    const std::string name = path.filename().string();
    Demuxer d;
    *d.stop = stop;
    AVFormatContext* raw = avformat_alloc_context();
    raw->interrupt_callback = {shouldStop, d.stop.get()};
    raw->max_streams = kMostStreams;
    // Only what holds its own pictures: a playlist could bring in another athlete's film, or the network.
    raw->format_whitelist = av_strdup(kFilmContainers);
    raw->protocol_whitelist = av_strdup("file");
    const int error = avformat_open_input(&raw, path.c_str(), nullptr, nullptr);
    if (error < 0 && stop.stop_requested()) return stopped();
    if (error == AVERROR(EACCES))
        return fail(ErrorCode::Unreadable, msg("demuxer.name-may-not-be-read-check", {{"name", name}}));
    if (error < 0) return fail(ErrorCode::BadInput, msg("demuxer.no-film", {{"name", name}}));
    d.input.reset(raw);
    d.stream = av_find_best_stream(raw, AVMEDIA_TYPE_VIDEO, -1, -1, nullptr, 0);
    if (!tellsAll(*raw, d.stream) && avformat_find_stream_info(raw, nullptr) < 0)
        return stop.stop_requested()
                   ? stopped()
                   : fail(ErrorCode::Damaged, msg("demuxer.nothing-decodes", {{"name", name}}));
    d.stream = av_find_best_stream(raw, AVMEDIA_TYPE_VIDEO, -1, -1, nullptr, 0);
    const bool attached = d.stream >= 0 && (d.video()->disposition & AV_DISPOSITION_ATTACHED_PIC);
    if (d.stream < 0 || attached)
        return fail(ErrorCode::BadInput, msg("demuxer.no-picture-stream", {{"name", name}}));
    const AVCodecParameters* p = d.video()->codecpar;
    if (p->width <= 0 || p->height <= 0)
        return fail(ErrorCode::Damaged, msg("demuxer.no-size", {{"name", name}}));
    d.shape = d.video()->sample_aspect_ratio;
    d.codedWidth = p->width;
    for (unsigned i = 0; i < raw->nb_streams; ++i)
        if (static_cast<int>(i) != d.stream) raw->streams[i]->discard = AVDISCARD_ALL;
    return d;
}

bool Demuxer::hasSampleTable() const {
    return std::strstr(input->iformat->name, "mov") != nullptr;
}

bool readPacket(Demuxer& d, AVPacket& packet) {
    int error = 0;
    while ((error = av_read_frame(d.input.get(), &packet)) >= 0 && packet.stream_index != d.stream)
        av_packet_unref(&packet);
    if (error < 0) {
        d.readToEnd = error == AVERROR_EOF;
        return false;
    }
    ++d.readPackets;
    const std::int64_t time = packet.pts != AV_NOPTS_VALUE ? packet.pts : packet.dts;
    // The key before an edit list's start is discarded for showing and still needed for decoding.
    if ((packet.flags & AV_PKT_FLAG_KEY) && time != AV_NOPTS_VALUE) d.keys.push_back(time);
    if (!(packet.flags & AV_PKT_FLAG_DISCARD)) d.times.push_back(packet.pts);
    return true;
}

Status scanPackets(Demuxer& d, const std::string& name, std::stop_token stop) {
    const ff::Packet packet(av_packet_alloc());
    while (readPacket(d, *packet)) {
        av_packet_unref(packet.get());
        if (stop.stop_requested()) return stopped();
        if (static_cast<std::int64_t>(d.times.size()) > kMostFrames)
            return fail(ErrorCode::BadInput, msg("demuxer.name-holds-more-than-k-most",
                                                 {{"name", name}, {"kMostFrames", kMostFrames}}));
    }
    std::sort(d.keys.begin(), d.keys.end());
    if (d.times.empty()) return fail(ErrorCode::Damaged, msg("demuxer.no-pictures", {{"name", name}}));
    return Done{};
}

FilmInfo factsOf(const Demuxer& d) {
    FilmInfo info;
    const AVStream* s = d.video();
    const AVCodecParameters* p = s->codecpar;
    info.width = p->width;
    info.height = p->height;
    readRotation(s, info);
    if (info.rotationDeg % 180 != 0) std::swap(info.width, info.height);
    info.codec = avcodec_get_name(p->codec_id);
    info.timeBase = rationalOf(s->time_base);
    info.playRate = rationalOf(s->avg_frame_rate.num ? s->avg_frame_rate : s->r_frame_rate);
    info.statedFrames = std::max<std::int64_t>(s->nb_frames, 0);
    for (unsigned i = 0; i < d.input->nb_streams; ++i)
        info.audio |= d.input->streams[i]->codecpar->codec_type == AVMEDIA_TYPE_AUDIO;
    info.locationData =
        hasTag(d.input->metadata, "location") || hasTag(d.input->metadata, "com.apple.quicktime.location");
    info.privateTags = privateTags(d.input->metadata);
    for (const std::string& tag : privateTags(s->metadata)) info.privateTags.push_back(tag);
    double tagged = taggedRate(d.input->metadata);
    if (tagged == 0) tagged = taggedRate(s->metadata);
    info.captureRate = tagged > 0 ? CaptureRate{tagged, RateSource::Metadata}
                                  : CaptureRate{info.playRate.toDouble(), RateSource::Assumed};
    return info;
}

Status withinLimits(const FilmInfo& info, const std::string& name) {
    const auto [least, most] = std::minmax(info.width, info.height);
    const char* why = most > kMostSide || std::int64_t{info.width} * info.height > kMostPixels
                          ? "reader.name-claims-a-picture-of-width"
                      : least < kLeastSide ? "reader.too-small"
                                           : nullptr;
    if (!why) return Done{};
    return fail(ErrorCode::BadInput,
                msg(why, {{"name", name}, {"width", info.width}, {"height", info.height}}));
}

Status refine(FilmInfo& info, const Demuxer& d, const AVFrame& first, const std::string& name) {
    if (const char* format = av_get_pix_fmt_name(static_cast<AVPixelFormat>(first.format)))
        info.pixelFormat = format;
    info.transfer = transferOf(first);
    // As FFmpeg guesses it: the container's word first. Packets may be read meanwhile: the stream is left
    // alone.
    const AVRational sar = d.shape.num > 0 && d.shape.den > 0 ? d.shape : first.sample_aspect_ratio;
    if (sar.num <= 0 || sar.den <= 0 || sar.num == sar.den) return withinLimits(info, name);
    const double aspect = av_q2d(sar);
    if (std::max(aspect, 1 / aspect) > kMostPixelAspect)
        return fail(ErrorCode::BadInput,
                    msg("reader.odd-pixels",
                        {{"name", name}, {"wide", std::int64_t{sar.num}}, {"high", std::int64_t{sar.den}}}));
    int& across = info.rotationDeg % 180 == 0 ? info.width : info.height;
    across = static_cast<int>(std::lround(d.codedWidth * aspect));
    return withinLimits(info, name);
}

} // namespace jg
