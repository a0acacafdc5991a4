// SPDX-License-Identifier: GPL-3.0-or-later
// The film room beside a bare FFmpeg loop on the same film in one run: film_bench FILM WORK_FOLDER prints
// JSON. What is held against another program is timed alone, so that the two can take turns: film_bench
// index|all FILM prints milliseconds.
#include "base/clock.h"
#include "base/file_store.h"
#include "bench/stopwatch.h"
#include "desk/jobs/film_thread.h"
#include "film/convert.h"
#include "film/ffmpeg_handles.h"
#include "film/follow.h"
#include "film/reader.h"
#include "film/scrub_copy.h"
#include "words/words.h"

#include <QCoreApplication>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <chrono>
#include <fstream>
#include <iostream>
#include <numeric>
#include <random>
#include <thread>

namespace {

using namespace jg;
using nlohmann::json;
using Clock = std::chrono::steady_clock;

double mean(const std::vector<double>& v) {
    return std::accumulate(v.begin(), v.end(), 0.0) / static_cast<double>(v.size());
}

double quantile(std::vector<double> v, double part) {
    std::sort(v.begin(), v.end());
    return v[std::min(v.size() - 1, static_cast<std::size_t>(part * static_cast<double>(v.size())))];
}

/// The reference: FFmpeg's decoder and nothing else, all its threads. Gives ms a frame.
double bareDecodeOnce(const std::string& film) {
    AVFormatContext* raw = nullptr;
    if (avformat_open_input(&raw, film.c_str(), nullptr, nullptr) < 0) std::exit(1);
    const ff::Input input(raw);
    avformat_find_stream_info(raw, nullptr);
    const int stream = av_find_best_stream(raw, AVMEDIA_TYPE_VIDEO, -1, -1, nullptr, 0);
    const ff::Codec codec(
        avcodec_alloc_context3(avcodec_find_decoder(raw->streams[stream]->codecpar->codec_id)));
    avcodec_parameters_to_context(codec.get(), raw->streams[stream]->codecpar);
    codec->thread_count = 0;
    avcodec_open2(codec.get(), nullptr, nullptr);
    const ff::Packet packet(av_packet_alloc());
    const ff::Frame frame(av_frame_alloc());
    int frames = 0;
    const auto start = Clock::now();
    for (bool more = true; more;) {
        more = av_read_frame(raw, packet.get()) >= 0;
        if (more && packet->stream_index != stream) {
            av_packet_unref(packet.get());
            continue;
        }
        avcodec_send_packet(codec.get(), more ? packet.get() : nullptr);
        av_packet_unref(packet.get());
        while (avcodec_receive_frame(codec.get(), frame.get()) >= 0) ++frames;
    }
    return msSince(start) / frames;
}

/// What was tried several times, and the reference tried before each: of both the quickest, as other machines
/// share the cores.
template <typename T>
struct Tried {
    T best;
    double d; ///< ms a frame of the bare decode
};

template <typename Once, typename Cost>
auto besideBareDecode(const std::string& film, int tries, Once once, Cost cost) {
    double d = bareDecodeOnce(film);
    Tried<decltype(once())> tried{once(), d};
    for (int i = 1; i < tries; ++i) {
        tried.d = std::min(tried.d, bareDecodeOnce(film));
        if (auto again = once(); cost(again) < cost(tried.best)) tried.best = std::move(again);
    }
    return tried;
}

std::unique_ptr<Reader> open(const std::string& film, std::shared_ptr<FrameBudget> budget = {}) {
    auto reader = Reader::open(film, {std::move(budget)});
    if (!reader) {
        std::cerr << english()(reader.error().text) << "\n";
        std::exit(1);
    }
    return std::move(*reader);
}

std::vector<double> walk(Reader& reader, bool backward) {
    std::vector<double> ms;
    const std::int64_t frames = reader.info().frames();
    for (std::int64_t i = 0; i < frames; ++i) {
        const FrameNumber n{backward ? frames - 1 - i : i};
        const auto start = Clock::now();
        reader.setTravel(n, backward ? -1 : 1);
        if (!reader.frame(n)) std::cerr << "frame " << n.value << " is missing\n";
        ms.push_back(msSince(start));
    }
    return ms;
}

/// A cold film walked from end to end, a few times.
struct Walked {
    std::vector<double> ms;
    double packets; ///< decoded a frame
};

Tried<Walked> quickestWalk(const std::string& film, bool backward) {
    const auto once = [&] {
        auto reader = open(film);
        const std::int64_t before = reader->packetsDecoded();
        auto ms = walk(*reader, backward);
        return Walked{std::move(ms), static_cast<double>(reader->packetsDecoded() - before) /
                                         static_cast<double>(reader->info().frames())};
    };
    return besideBareDecode(film, 4, once, [](const Walked& w) { return mean(w.ms); });
}

/// Every frame once with a small cache, as the scrub copy's maker reads a film, in ms.
double wholeMs(const std::string& film) {
    const auto start = Clock::now();
    auto reader = open(film, std::make_shared<FrameBudget>(std::size_t{64} << 20));
    walk(*reader, false);
    return msSince(start);
}

double indexMs(const std::string& film) {
    const auto start = Clock::now();
    const auto reader = open(film);
    return msSince(start);
}

/// From the wish to the decoded frame at hand, at 30 steps a second, decoding ahead in the thread of the
/// window.
std::vector<double> calmStepsOnce(const std::string& film, std::int64_t frames) {
    FilmThread thread(film);
    const auto wait = [&](std::int64_t n) {
        const auto start = Clock::now();
        thread.request(FrameNumber{n});
        while (!thread.holds(FrameNumber{n})) std::this_thread::sleep_for(std::chrono::microseconds(20));
        return msSince(start);
    };
    wait(frames - 1);
    std::vector<double> ms;
    auto due = Clock::now();
    for (std::int64_t n = frames - 2; n >= 0; --n) {
        std::this_thread::sleep_until(due += std::chrono::microseconds(33333));
        ms.push_back(wait(n));
        due = std::max(due, Clock::now() - std::chrono::milliseconds(33));
        QCoreApplication::processEvents();
    }
    return ms;
}

Tried<std::vector<double>> calmSteps(const std::string& film, std::int64_t frames) {
    return besideBareDecode(
        film, 2, [&] { return calmStepsOnce(film, frames); },
        [](const std::vector<double>& ms) { return quantile(ms, 1); });
}

std::size_t residentBytes(const char* field) {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);)
        if (line.rfind(field, 0) == 0) return std::stoul(line.substr(line.find(':') + 1)) * 1024;
    return 0;
}

/// Exact jumps with nothing held, each the quickest of three: ms over what decoding from the key and eight
/// frames more would take; the worst of 25.
double worstJump(const std::string& film, const std::vector<std::int64_t>& keys) {
    auto reader = open(film, std::make_shared<FrameBudget>(1));
    std::mt19937_64 engine(3);
    std::vector<std::pair<std::int64_t, double>> jumps;
    for (int i = 0; i < 25; ++i)
        jumps.emplace_back(engine() % static_cast<std::uint64_t>(reader->info().frames()), 1e9);
    double d = INFINITY;
    for (int round = 0; round < 3; ++round) {
        d = std::min(d, bareDecodeOnce(film));
        for (auto& [n, ms] : jumps) {
            const auto start = Clock::now();
            if (!reader->frame(FrameNumber{n})) std::exit(1);
            ms = std::min(ms, msSince(start));
        }
    }
    double worst = 0;
    for (const auto& [n, ms] : jumps) {
        const std::int64_t key = *std::prev(std::upper_bound(keys.begin(), keys.end(), n));
        worst = std::max(worst, (ms - 8 * d) / (static_cast<double>(n - key + 1) * d));
    }
    return worst;
}

std::string scrubOf(const std::string& folder) {
    return folder + "/scrub.mov";
}

/// Jumps through the scrub copy, with conversion to a picture of the view's size.
std::vector<double> scrubJumps(const std::string& film, const std::string& folder) {
    FileStore files;
    const std::string path = scrubOf(folder);
    auto reader = open(film);
    if (!makeScrubCopy(*reader, path, files)) std::exit(1);
    auto scrub = open(path, std::make_shared<FrameBudget>(1));
    std::mt19937_64 engine(5);
    std::vector<double> ms;
    for (int i = 0; i < 60; ++i) {
        const auto n =
            static_cast<std::int64_t>(engine() % static_cast<std::uint64_t>(scrub->info().frames()));
        const auto start = Clock::now();
        if (!scrub->picture(FrameNumber{n})) std::exit(1);
        ms.push_back(msSince(start));
    }
    return ms;
}

/// Six points followed over up to 240 frames, in decode times of those frames, with the scrub copy at hand.
double followed(const std::string& film, const std::string& folder) {
    std::int64_t frames = 0;
    const auto once = [&] {
        const auto reader = open(film), scrub = open(scrubOf(folder));
        frames = std::min<std::int64_t>(240, reader->info().frames());
        const double w = reader->info().width, h = reader->info().height;
        std::vector<FollowOrder> orders;
        for (int i = 1; i <= 6; ++i) {
            const FilmPlace at{w * i / 7, h * (0.3 + 0.05 * i)};
            orders.push_back({0, frames - 1, at, at, 2});
        }
        const auto start = Clock::now();
        if (!followPoints({*reader, scrub.get()}, orders))
            throw std::runtime_error("the points were not followed");
        return msSince(start);
    };
    const auto tried = besideBareDecode(film, 3, once, [](double ms) { return ms; });
    return tried.best / (static_cast<double>(frames) * tried.d);
}

/// The same frame by swscale as exactly as it can.
double exactSwscaleMs(const AVFrame& frame) {
    std::vector<std::uint8_t> bgra(
        static_cast<std::size_t>(frame.width) * static_cast<std::size_t>(frame.height) * 4 + 64);
    const auto start = Clock::now();
    const ff::Sws sws(sws_getContext(
        frame.width, frame.height, static_cast<AVPixelFormat>(frame.format), frame.width, frame.height,
        AV_PIX_FMT_BGRA, SWS_BICUBIC | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INT, nullptr, nullptr, nullptr));
    std::uint8_t* planes[4] = {bgra.data(), nullptr, nullptr, nullptr};
    const int strides[4] = {frame.width * 4, 0, 0, 0};
    sws_scale(sws.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
    return msSince(start);
}

/// The first frame as a picture, in turn with swscale's: the quickest of twenty each, and their ratio.
json colours(const std::string& film) {
    auto reader = open(film);
    const auto frame = reader->frame(FrameNumber{0});
    double ours = 1e9, theirs = 1e9;
    for (int i = 0; i < 20; ++i) {
        const auto start = Clock::now();
        if (!toPicture(**frame, reader->info())) std::exit(1);
        ours = std::min(ours, msSince(start));
        theirs = std::min(theirs, exactSwscaleMs(**frame));
    }
    return {{"pictureMs", ours}, {"swscaleMs", theirs}, {"ratio", ours / theirs}};
}

} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    if (argc != 3) {
        std::cerr << "film_bench FILM WORK_FOLDER, or film_bench index|all|colours FILM\n";
        return 2;
    }
    const std::string first = argv[1];
    if (first == "colours") {
        std::cout << colours(argv[2]).dump() << "\n";
        return 0;
    }
    if (first == "index" || first == "all") {
        std::cout << (first == "index" ? indexMs(argv[2]) : wholeMs(argv[2])) << "\n";
        return 0;
    }
    const std::string film = first;
    auto indexed = open(film);
    const std::vector<std::int64_t> keys = indexed->groupStarts();
    const std::int64_t frames = indexed->info().frames();
    std::int64_t group = frames - keys.back();
    for (std::size_t i = 1; i < keys.size(); ++i) group = std::max(group, keys[i] - keys[i - 1]);
    indexed.reset(); // an open film takes its share of the budget

    const std::size_t before = residentBytes("VmRSS");
    const auto forward = quickestWalk(film, false), backward = quickestWalk(film, true);
    const double overBudget = static_cast<double>(residentBytes("VmHWM")) - static_cast<double>(before) -
                              static_cast<double>(FrameBudget::ofThisMachine()->total());
    const auto calm = calmSteps(film, frames);
    const auto near = scrubJumps(film, argv[2]);
    const auto inD = [](double ms, const auto& tried) { return ms / tried.d; };
    const double g = static_cast<double>(group);
    std::cout << json{{"frames", frames},
                      {"group", group},
                      {"decodeMs", std::min(forward.d, backward.d)},
                      {"forward",
                       {{"mean", inD(mean(forward.best.ms), forward)},
                        {"p95", inD(quantile(forward.best.ms, 0.95), forward)}}},
                      {"backward",
                       {{"mean", inD(mean(backward.best.ms), backward)},
                        {"max", inD(quantile(backward.best.ms, 1), backward) / g},
                        {"packets", backward.best.packets}}},
                      {"calm",
                       {{"p95", inD(quantile(calm.best, 0.95), calm)},
                        {"max", inD(quantile(calm.best, 1), calm) / g}}},
                      {"jump", worstJump(film, keys)},
                      {"follow", followed(film, argv[2])},
                      {"nearMs", quantile(near, 0.95)},
                      {"overBudgetMB", overBudget / 1e6}}
                     .dump(1)
              << "\n";
}
