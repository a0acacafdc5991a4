#include "film/film_check.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <cstdlib>

namespace jg {

namespace {

constexpr int kGreyWidth = 96;
constexpr double kDarkMean = 0.10;      // own choice: below it limbs and wall grow together
constexpr double kRepeatDifference = 0.35; // own choice, grey levels: coding noise stays below it
// A hand at 55 mph moves 16 in a frame at 60 a second: common practice, no source.
constexpr double kHandInchesPerS = 960;

struct Pass {
    double darkest = 1;
    double brightness = 0;
    std::int64_t distinct = 0;
    std::int64_t readable = 0;
};

double difference(const Reader::Grey& a, const Reader::Grey& b) {
    double sum = 0;
    for (std::size_t i = 0; i < a.pixels.size(); ++i) sum += std::abs(a.pixels[i] - b.pixels[i]);
    return sum / static_cast<double>(a.pixels.size());
}

Result<Pass> lookThrough(Reader& reader, std::stop_token stop, const std::function<void(double)>& progress) {
    Pass pass;
    Reader::Grey last;
    const std::int64_t frames = reader.info().frames();
    for (std::int64_t n = 0; n < frames; ++n) {
        auto grey = reader.grey(FrameNumber{n}, kGreyWidth, stop);
        if (progress) progress(static_cast<double>(n + 1) / static_cast<double>(frames));
        if (!grey) {
            if (grey.error().code == ErrorCode::Cancelled) return grey.error();
            continue;
        }
        ++pass.readable;
        const double mean = grey->mean();
        pass.brightness += mean;
        pass.darkest = std::min(pass.darkest, mean);
        if (last.pixels.empty() || difference(*grey, last) > kRepeatDifference) ++pass.distinct;
        last = std::move(*grey);
    }
    if (pass.readable > 0) pass.brightness /= static_cast<double>(pass.readable);
    return pass;
}

std::string rounded(double v) {
    char text[32];
    std::snprintf(text, sizeof text, "%.0f", v);
    return text;
}

void checkRate(const FilmInfo& info, std::vector<CheckLine>& lines) {
    const double fps = info.captureRate.fps;
    if (info.captureRate.source == RateSource::Assumed)
        lines.push_back({"rate-assumed", CheckLevel::Note,
                         "The capture rate is taken as the play rate, " + rounded(fps) + " a second; say so if it was slow motion."});
    if (fps > 0 && fps < 110)
        lines.push_back({"rate-low", CheckLevel::Warn,
                         "Release can't be placed finer than " + rounded(kHandInchesPerS / fps) + " in at " + rounded(fps) +
                             " a second: film at 120 or more."});
}

} // namespace

const char* idOf(CheckLevel level) {
    switch (level) {
    case CheckLevel::Note: return "note";
    case CheckLevel::Warn: return "warn";
    case CheckLevel::Stop: break;
    }
    return "stop";
}

Result<FilmCheck> checkFilm(Reader& reader, std::stop_token stop, const std::function<void(double)>& progress) {
    auto pass = lookThrough(reader, stop, progress);
    if (!pass) return pass.error();
    const FilmInfo& info = reader.info();
    FilmCheck check;
    check.distinctFrames = pass->distinct;
    const double held = static_cast<double>(info.frames()) / static_cast<double>(std::max<std::int64_t>(1, pass->distinct));
    check.repeatPattern = "none";
    auto& lines = check.lines;
    if (!info.complete)
        lines.push_back({"cut-short", CheckLevel::Warn,
                         "The file ends early: " + std::to_string(info.frames()) + " of " +
                             std::to_string(std::max(info.statedFrames, info.frames())) + " pictures can be read. Ask for it again."});
    if (pass->brightness < kDarkMean)
        lines.push_back({"dark", CheckLevel::Warn, "Too dark: limbs are hard to tell from the wall. Film with the lamps on."});
    checkRate(info, lines);
    if (std::min(info.width, info.height) < 360)
        lines.push_back({"small", CheckLevel::Warn, "The picture is small (" + std::to_string(info.width) + " x " +
                                                        std::to_string(info.height) + "): angles will carry a large error."});
    if (held > 1.8 && pass->brightness >= kDarkMean) {
        check.repeatPattern = "each picture is shown about " + rounded(held) + " times";
        lines.push_back({"repeats", CheckLevel::Note, "A slow-motion copy: " + check.repeatPattern + "."});
    }
    if (info.locationData)
        lines.push_back({"location", CheckLevel::Note, "The file says where it was filmed. That stays here and is never sent."});
    if (!info.audio) lines.push_back({"silent", CheckLevel::Note, "No sound in the film."});
    std::stable_sort(lines.begin(), lines.end(), [](const auto& a, const auto& b) { return a.level > b.level; });
    return check;
}

} // namespace jg
