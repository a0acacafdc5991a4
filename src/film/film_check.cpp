#include "film/film_check.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <cstdlib>

namespace jg {

namespace {

constexpr int kGreyWidth = 96;
constexpr double kDarkMean = 0.20; // own choice: below it limbs and wall grow together
constexpr int kCell = 8;           // pixels of the small picture
constexpr double kMoved = 3.0;     // own choice, grey levels: coding noise of a held picture stays below it
// A hand at 55 mph moves 16 in a frame at 60 a second: common practice, no source.
constexpr double kHandInchesPerS = 960;

struct Pass {
    double brightness = 0;
    std::int64_t readable = 0;
    std::vector<double> change; ///< of each picture against the one before, in its most changed cell
};

/// Mean difference in the cell that changed most: an arm moves little of the whole picture.
double largestCellChange(const Reader::Grey& a, const Reader::Grey& b) {
    double largest = 0;
    for (int y0 = 0; y0 + kCell <= a.height; y0 += kCell)
        for (int x0 = 0; x0 + kCell <= a.width; x0 += kCell) {
            int sum = 0;
            for (int y = y0; y < y0 + kCell; ++y)
                for (int x = x0; x < x0 + kCell; ++x) {
                    const auto i = static_cast<std::size_t>(y) * static_cast<std::size_t>(a.width) +
                                   static_cast<std::size_t>(x);
                    sum += std::abs(a.pixels[i] - b.pixels[i]);
                }
            largest = std::max(largest, static_cast<double>(sum) / (kCell * kCell));
        }
    return largest;
}

/// How often each picture is held, when all changes fall on every k-th picture; 1 when there is no such beat.
/// Claims nothing when little moves.
int heldTimes(const std::vector<double>& change) {
    std::vector<std::size_t> moved;
    for (std::size_t i = 1; i < change.size(); ++i)
        if (change[i] > kMoved) moved.push_back(i);
    if (moved.size() < 8) return 1;
    for (const std::size_t k : {8U, 5U, 4U, 3U, 2U}) {
        for (std::size_t phase = 0; phase < k; ++phase) {
            const auto onBeat = static_cast<std::size_t>(
                std::count_if(moved.begin(), moved.end(), [&](std::size_t i) { return i % k == phase; }));
            // Within the moving stretch most beats must bring a change, else it is only a slow film.
            const std::size_t beats = (moved.back() - moved.front()) / k + 1;
            if (onBeat == moved.size() && onBeat * 10 >= beats * 6) return static_cast<int>(k);
        }
    }
    return 1;
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
        pass.change.push_back(last.pixels.empty() ? 0 : largestCellChange(*grey, last));
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
                         "The capture rate is taken as the play rate, " + rounded(fps) +
                             " a second; say so if it was slow motion."});
    if (fps > 0 && fps < 110)
        lines.push_back({"rate-low", CheckLevel::Warn,
                         "Release can't be placed finer than " + rounded(kHandInchesPerS / fps) + " in at " +
                             rounded(fps) + " a second: film at 120 or more."});
}

} // namespace

const char* idOf(CheckLevel level) {
    switch (level) {
    case CheckLevel::Note:
        return "note";
    case CheckLevel::Warn:
        return "warn";
    case CheckLevel::Stop:
        break;
    }
    return "stop";
}

Result<FilmCheck> checkFilm(Reader& reader, std::stop_token stop,
                            const std::function<void(double)>& progress) {
    auto pass = lookThrough(reader, stop, progress);
    if (!pass) return pass.error();
    const FilmInfo& info = reader.info();
    FilmCheck check;
    const int held = heldTimes(pass->change);
    check.distinctFrames = (info.frames() + held - 1) / held;
    check.repeatPattern = held == 1 ? "none" : "each picture is shown " + std::to_string(held) + " times";
    auto& lines = check.lines;
    if (!info.complete)
        lines.push_back({"cut-short", CheckLevel::Warn,
                         "The file ends early: " + std::to_string(info.frames()) + " of " +
                             std::to_string(std::max(info.statedFrames, info.frames())) +
                             " pictures can be read. Ask for it again."});
    if (pass->brightness < kDarkMean)
        lines.push_back({"dark", CheckLevel::Warn,
                         "Too dark: limbs are hard to tell from the wall. Film with the lamps on."});
    checkRate(info, lines);
    if (std::min(info.width, info.height) < 360)
        lines.push_back({"small", CheckLevel::Warn,
                         "The picture is small (" + std::to_string(info.width) + " x " +
                             std::to_string(info.height) + "): angles will carry a large error."});
    if (held > 1)
        lines.push_back({"repeats", CheckLevel::Note, "A slow-motion copy: " + check.repeatPattern + "."});
    if (info.locationData)
        lines.push_back({"location", CheckLevel::Note,
                         "The file says where it was filmed. That stays here and is never sent."});
    if (!info.audio) lines.push_back({"silent", CheckLevel::Note, "No sound in the film."});
    std::stable_sort(lines.begin(), lines.end(),
                     [](const auto& a, const auto& b) { return a.level > b.level; });
    return check;
}

} // namespace jg
