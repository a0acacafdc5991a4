// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/cli/command.h"

#include "base/file_store.h"
#include "desk/keeping/places.h"
#include "film/film_check.h"
#include "film/reader.h"
#include "letter/still.h"

#include <QBuffer>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <iostream>
#include <random>
#include <sys/resource.h>

namespace jg::cli {

using nlohmann::json;

namespace {

std::unique_ptr<Reader> openFilm(const Arguments& a, std::stop_token stop, ReaderOptions options = {}) {
    return orRefuse(Reader::open(a.word(0, "FILE"), std::move(options), stop));
}

json lineOf(const CheckLine& l) {
    json line = {{"id", l.id}, {"level", idOf(l.level)}, {"text", l.text}};
    if (l.frames) line["frames"] = *l.frames;
    if (l.figure) line["figure"] = *l.figure;
    if (l.limit) line["limit"] = *l.limit;
    return line;
}

void probe(const Arguments& a, std::stop_token stop) {
    const CheckLimits limits = orRefuse(readCheckLimits(dataFolder() / "film" / "check-limits.json"));
    const auto reader = openFilm(a, stop, {.watchErrors = true});
    const FilmCheck check = orRefuse(
        checkFilm(*reader, limits, {}, stop, [](double part) { showProgress(part, msg("cli.looking")); }));
    const FilmInfo& i = reader->info();
    json lines = json::array();
    for (const CheckLine& l : check.lines) lines.push_back(lineOf(l));
    const json capture = {{"fps", i.captureRate.fps > 0 ? json(i.captureRate.fps) : json(nullptr)},
                          {"source", idOf(i.captureRate.source)}};
    const json out = {
        {"width", i.width},
        {"height", i.height},
        {"rotationDeg", i.rotationDeg},
        {"mirrored", i.mirrored},
        {"codec", i.codec},
        {"pixelFormat", i.pixelFormat},
        {"frames", i.frames()},
        {"durationS", i.durationS},
        {"playRate", {{"num", i.playRate.num}, {"den", i.playRate.den}}},
        {"variableRate", i.variableRate},
        {"captureRate", capture},
        {"repeats", {{"distinctFrames", check.distinctFrames}, {"pattern", check.repeatPattern}}},
        {"audio", i.audio},
        {"locationData", i.locationData},
        {"privateTags", i.privateTags},
        {"damaged", check.damaged},
        {"complete", i.complete},
        {"check", lines}};
    if (a.has("json")) {
        std::cout << out.dump(2) << "\n";
        return;
    }
    std::cout << msg("cli.film", {{"width", i.width},
                                  {"height", i.height},
                                  {"frames", i.frames()},
                                  {"seconds", trimmed(i.durationS)},
                                  {"codec", i.codec}})
              << "\n";
    for (const CheckLine& l : check.lines) std::cout << idOf(l.level) << ": " << l.text << "\n";
}

void pts(const Arguments& a, std::stop_token stop) {
    const auto reader = openFilm(a, stop);
    const FilmInfo& i = reader->info();
    for (std::size_t n = 0; n < i.pts.size(); ++n)
        std::cout << n << "\t" << i.pts[n].value << "\t" << secondsOf(i.pts[n], i.timeBase) << "\n";
}

std::int64_t frameNumber(const std::string& text) {
    std::int64_t n = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), n);
    if (error != std::errc() || end != text.data() + text.size())
        throw WrongUse(msg("film-commands.the-frame-must-be-a-whole", {{"text", text}}));
    return n;
}

void frame(const Arguments& a, std::stop_token stop) {
    const std::int64_t n = frameNumber(a.word(1, "N"));
    const std::string target = a.need("png");
    const auto reader = openFilm(a, stop);
    const Picture picture = orRefuse(reader->picture(FrameNumber{n}, stop));
    const QImage image = toImage(picture).convertToFormat(QImage::Format_RGB888);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    FileStore files;
    orRefuse(
        files.write(target, std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size()))));
}

/// Times of many single steps, in milliseconds.
struct Times {
    std::vector<double> ms;
    json summary() {
        std::sort(ms.begin(), ms.end());
        double sum = 0;
        for (const double t : ms) sum += t;
        const auto at = [&](double p) {
            return ms[std::min(ms.size() - 1, static_cast<std::size_t>(p * static_cast<double>(ms.size())))];
        };
        return {{"mean", sum / static_cast<double>(ms.size())},
                {"p50", at(0.5)},
                {"p95", at(0.95)},
                {"max", ms.back()}};
    }
};

double msSince(std::chrono::steady_clock::time_point start) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

json walk(const Arguments& a, std::stop_token stop, const std::vector<std::int64_t>& order,
          double* mean = nullptr, std::size_t* cache = nullptr) {
    const auto reader = openFilm(a, stop);
    Times times;
    for (const std::int64_t n : order) {
        const auto start = std::chrono::steady_clock::now();
        orRefuse(reader->grey(FrameNumber{n}, 16, stop));
        times.ms.push_back(msSince(start));
    }
    if (cache) *cache = std::max(*cache, reader->cacheBytes());
    const json summary = times.summary();
    if (mean) *mean = summary["mean"];
    return summary;
}

void bench(const Arguments& a, std::stop_token stop) {
    const auto start = std::chrono::steady_clock::now();
    const std::int64_t frames = openFilm(a, stop)->info().frames();
    const double indexMs = msSince(start);
    std::vector<std::int64_t> forward, backward, random;
    for (std::int64_t n = 0; n < frames; ++n) forward.push_back(n);
    backward.assign(forward.rbegin(), forward.rend());
    std::mt19937_64 engine(1);
    for (int i = 0; i < 50; ++i)
        random.push_back(static_cast<std::int64_t>(engine() % static_cast<std::uint64_t>(frames)));
    double decode = 0;
    std::size_t cache = 0;
    json out;
    out["forward"] = walk(a, stop, forward, &decode, &cache);
    out["backward"] = walk(a, stop, backward, nullptr, &cache);
    out["random"] = walk(a, stop, random, nullptr, &cache);
    out["decodeMsPerFrame"] = decode;
    out["indexMs"] = indexMs;
    out["cacheBytes"] = cache;
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    out["peakRssBytes"] = static_cast<std::int64_t>(usage.ru_maxrss) * 1024;
    std::cout << out.dump(a.has("json") ? 2 : 1) << "\n";
}

} // namespace

std::vector<Command> filmCommands() {
    return {{"film probe", "film probe FILE [--json]", {}, {"json"}, 1, 1, probe},
            {"film pts", "film pts FILE", {}, {}, 1, 1, pts},
            {"film frame", "film frame FILE N --png OUT", {"png"}, {}, 2, 2, frame},
            {"film bench", "film bench FILE [--json]", {}, {"json"}, 1, 1, bench}};
}

} // namespace jg::cli
