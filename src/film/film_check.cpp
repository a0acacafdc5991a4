// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/film_check.h"

#include "film/repeats.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

/// The lines of one film, judged from its survey.
class Judge {
public:
    /// `check` holds survey, damage and repeats already.
    Judge(const FilmInfo& info, const FilmCheck& check, const CheckLimits& limits,
          const CheckQuestion& question)
        : info_(info)
        , check_(check)
        , s_(check.survey)
        , l_(limits)
        , q_(question)
        , fps_(question.statedFps > 0 ? question.statedFps : info.captureRate.fps) {
        for (const FrameFacts& f : s_.frames) {
            mostMotion_ = std::max(mostMotion_, f.motion);
            bodyFrames_ += f.athlete;
        }
        moves_ = mostMotion_ > kLeastMotion;
        blended_ = isBlended(s_);
    }

    std::vector<CheckLine> lines;

    void all() {
        whole();
        rate();
        light();
        sharpness();
        size();
        camera();
        ends();
        direction();
        rest();
    }

private:
    void add(const char* id, CheckLevel level, Message text, double figure, double limit,
             std::optional<FrameRange> frames = {}) {
        lines.push_back({id, level, std::move(text), frames, figure, limit});
    }
    void add(const char* id, CheckLevel level, Message text) {
        lines.push_back({id, level, std::move(text), {}, {}, {}});
    }
    std::int64_t last() const { return std::ssize(s_.frames) - 1; }

    void whole();
    void rate();
    bool lost();
    void light();
    void sharpness();
    void size();
    void camera();
    void ends();
    void direction();
    void rest();
    double steadyShake() const;

    const FilmInfo& info_;
    const FilmCheck& check_;
    const FilmSurvey& s_;
    const CheckLimits& l_;
    const CheckQuestion& q_;
    double fps_;
    double mostMotion_ = 0;
    std::int64_t bodyFrames_ = 0;
    bool moves_ = false;
    bool dark_ = false;
    bool blended_ = false;
};

void Judge::whole() {
    if (!info_.complete)
        add("cut-short", CheckLevel::Warn,
            msg("film-check.ends-early",
                {{"frames", info_.frames()}, {"frames2", std::max(info_.statedFrames, info_.frames())}}));
    if (last() + 1 < info_.frames())
        add("long", CheckLevel::Warn,
            msg("film-check.a-long-film-only-its-first", {{"last", last() + 1}, {"frames", info_.frames()}}),
            static_cast<double>(info_.frames()), l_.mostPictures);
    std::int64_t bad = 0;
    for (const auto& [first, last] : check_.damaged) bad += last - first + 1;
    if (bad > 0)
        add("damaged", CheckLevel::Warn, msg("film-check.damaged", {{"count", bad}}),
            static_cast<double>(bad), 0,
            FrameRange{check_.damaged.front().first, check_.damaged.back().second});
}

void Judge::rate() {
    if (info_.captureRate.source == RateSource::Assumed && q_.statedFps <= 0)
        add("rate-assumed", CheckLevel::Note, msg("film-check.rate-assumed", {{"fps", std::lround(fps_)}}));
    if (fps_ > 0 && fps_ < l_.enoughRateFps)
        add("rate-low", CheckLevel::Warn,
            msg("film-check.release-coarse",
                {{"fps", std::lround(l_.handInchesPerSecond / fps_)}, {"fps2", std::lround(fps_)}}),
            fps_, l_.enoughRateFps);
    if (const int held = check_.heldTimes; held > 1)
        add("repeats", CheckLevel::Note, msg("film-check.a-slow-motion-copy-each-picture", {{"held", held}}),
            held, 1);
    else if (blended_)
        add("blended", CheckLevel::Warn, msg("film-check.mixed"));
    const bool gaps = lost();
    if (info_.variableRate && !gaps) add("rate-varies", CheckLevel::Note, msg("film-check.uneven-times"));
}

/// True when time has gaps: then the rate varies for that reason.
bool Judge::lost() {
    const auto gaps = gapsInTime(info_);
    const auto jumps =
        gaps.empty() && check_.heldTimes == 1 && !blended_ ? jumpsInMotion(s_) : std::vector<std::int64_t>{};
    if (!gaps.empty())
        add("frames-missing", CheckLevel::Warn,
            msg("film-check.gaps", {{"count", gaps.size()}, {"picture", gaps.front()}}),
            static_cast<double>(gaps.size()), 0, FrameRange{gaps.front(), gaps.back()});
    if (!jumps.empty())
        add("frames-cut", CheckLevel::Warn, msg("film-check.jumps", {{"jumps", jumps.front()}}),
            static_cast<double>(jumps.size()), 0, FrameRange{jumps.front(), jumps.back()});
    return !gaps.empty();
}

/// The mean of the two pictures in which the fastest limb moves furthest.
void Judge::sharpness() {
    if (blended_) return; // a mixed picture shows every limb twice and faintly
    std::array<std::int64_t, 2> fastest{-1, -1};
    for (std::int64_t n = 0; n <= last(); ++n) {
        const auto area = [&](std::int64_t i) {
            return i < 0 ? 0 : s_.frames[static_cast<std::size_t>(i)].fastArea;
        };
        if (area(n) > area(fastest[0]))
            fastest = {n, fastest[0]};
        else if (area(n) > area(fastest[1]))
            fastest[1] = n;
    }
    const auto [first, second] = fastest;
    if (first < 0 || second < 0) return;
    const FrameFacts &a = s_.frames[static_cast<std::size_t>(first)],
                     &b = s_.frames[static_cast<std::size_t>(second)];
    if (std::min(a.fastArea, b.fastArea) < l_.fastLeastArea) return;
    if (const double clear = (a.fastClear + b.fastClear) / 2; clear < l_.fastClearLeast)
        add("blurred", CheckLevel::Warn,
            msg("film-check.smeared", {{"min", std::min(first, second)}, {"max", std::max(first, second)}}),
            clear, l_.fastClearLeast, FrameRange{std::min(first, second), std::max(first, second)});
}

void Judge::light() {
    double sum = 0;
    std::int64_t readable = 0;
    for (const FrameFacts& f : s_.frames)
        if (f.readable) sum += f.brightness, ++readable;
    const double mean = readable > 0 ? sum / static_cast<double>(readable) : 0;
    dark_ = mean < l_.darkMean;
    if (dark_) add("dark", CheckLevel::Warn, msg("film-check.dark"), mean, l_.darkMean);
    if (info_.transfer != Transfer::Standard)
        add("hdr", CheckLevel::Note, msg("film-check.filmed-with-high-dynamic-range-colours"));
}

void Judge::size() {
    if (const int side = std::min(info_.width, info_.height); side < l_.smallSidePx)
        add("small", CheckLevel::Warn,
            msg("film-check.the-picture-is-small-width-x",
                {{"width", info_.width}, {"height", info_.height}}),
            side, l_.smallSidePx);
    if (!moves_ || bodyFrames_ < 8) return;
    std::vector<double> heights;
    std::int64_t atEdge = 0, first = -1, lastCut = -1;
    for (std::int64_t n = 0; n <= last(); ++n) {
        const FrameFacts& f = s_.frames[static_cast<std::size_t>(n)];
        if (!f.athlete) continue;
        heights.push_back(f.bottom - f.top);
        const bool cut = f.left < l_.edgeMargin || f.right > 1 - l_.edgeMargin || f.top < l_.edgeMargin ||
                         f.bottom > 1 - l_.edgeMargin;
        if (!cut) continue;
        ++atEdge, lastCut = n;
        if (first < 0) first = n;
    }
    std::sort(heights.begin(), heights.end());
    if (const double tall = heights[heights.size() * 9 / 10]; tall < l_.athleteLeastHeight)
        add("athlete-small", CheckLevel::Warn,
            msg("film-check.athlete-small", {{"tall", std::lround(tall * 100)}}), tall,
            l_.athleteLeastHeight);
    if (const double part = static_cast<double>(atEdge) / static_cast<double>(bodyFrames_);
        part > l_.edgeLeastFrames)
        add("athlete-cut", CheckLevel::Warn, msg("film-check.athlete-leaves", {{"atEdge", atEdge}}), part,
            l_.edgeLeastFrames, FrameRange{first, lastCut});
}

/// What is left of the camera's shift after its slow drift: the middle of half a second is taken off.
double Judge::steadyShake() const {
    const auto half = static_cast<std::int64_t>(std::max(2.0, info_.playRate.toDouble() / 4));
    double sum = 0;
    for (std::int64_t n = 0; n <= last(); ++n) {
        double x = 0, y = 0;
        const std::int64_t from = std::max<std::int64_t>(0, n - half), to = std::min(last(), n + half);
        for (std::int64_t k = from; k <= to; ++k) {
            x += s_.frames[static_cast<std::size_t>(k)].shiftX;
            y += s_.frames[static_cast<std::size_t>(k)].shiftY * info_.height / info_.width;
        }
        const auto count = static_cast<double>(to - from + 1);
        const FrameFacts& f = s_.frames[static_cast<std::size_t>(n)];
        sum += std::pow(f.shiftX - x / count, 2) +
               std::pow(f.shiftY * info_.height / info_.width - y / count, 2);
    }
    return std::sqrt(sum / static_cast<double>(last() + 1));
}

void Judge::camera() {
    // In the dark the corners that are followed are noise.
    if (const double shake = dark_ ? 0 : steadyShake(); shake > l_.shakeLargest)
        add("shake", CheckLevel::Warn,
            msg("film-check.the-camera-shakes-by-about-width", {{"width", std::lround(shake * info_.width)}}),
            shake, l_.shakeLargest);
    if (s_.lines.tiltDeg && std::abs(*s_.lines.tiltDeg) > l_.tiltLargestDeg)
        add("tilt", CheckLevel::Warn,
            msg("film-check.tilted", {{"tiltDeg", std::lround(std::abs(*s_.lines.tiltDeg))}}),
            *s_.lines.tiltDeg, l_.tiltLargestDeg, FrameRange{0, 0});
    if (q_.fromSide && s_.lines.turnedDeg && std::abs(*s_.lines.turnedDeg) > l_.squareLargestDeg)
        add("not-square", CheckLevel::Warn,
            msg("film-check.turned", {{"turnedDeg", std::lround(std::abs(*s_.lines.turnedDeg))}}),
            *s_.lines.turnedDeg, l_.squareLargestDeg, FrameRange{0, 0});
}

void Judge::ends() {
    if (!moves_ || last() < 20) return;
    const double playRate = std::max(1.0, info_.playRate.toDouble());
    const auto span =
        static_cast<std::int64_t>(std::clamp(playRate * 0.15, 3.0, static_cast<double>(last()) / 4));
    const auto mean = [&](std::int64_t from, std::int64_t to) {
        double sum = 0;
        for (std::int64_t n = from; n <= to; ++n) sum += s_.frames[static_cast<std::size_t>(n)].motion;
        return sum / static_cast<double>(to - from + 1) / mostMotion_;
    };
    const double start = mean(1, span), end = mean(last() - span, last());
    if (start > l_.startMotionLargest)
        add("starts-late", CheckLevel::Warn, msg("film-check.the-film-begins-in-the-middle"), start,
            l_.startMotionLargest, FrameRange{0, span});
    if (end > l_.endMotionLargest)
        add("ends-early", CheckLevel::Warn, msg("film-check.the-film-ends-before-the-athlete"), end,
            l_.endMotionLargest, FrameRange{last() - span, last()});
    if (start > l_.startMotionLargest) return;
    std::int64_t longest = 0, run = 0;
    for (const FrameFacts& f : s_.frames) {
        run = f.motion < l_.stillMotionLargest * mostMotion_ ? run + 1 : 0;
        longest = std::max(longest, run);
        if (f.motion > 0.5 * mostMotion_) break;
    }
    if (const double still = static_cast<double>(longest) / playRate; still < l_.stillLeastS)
        add("no-stillness", CheckLevel::Note, msg("film-check.never-still"), still, l_.stillLeastS);
}

void Judge::direction() {
    if (q_.travel == 0 || !moves_ || bodyFrames_ < 8) return;
    // The front foot travels; the back foot stays at the rubber.
    const auto middle = [&](bool early) {
        std::vector<double> places;
        for (const FrameFacts& f : s_.frames)
            if (f.athlete) places.push_back((f.left + f.right) / 2);
        const std::size_t part = std::max<std::size_t>(1, places.size() / 5);
        double sum = 0;
        for (std::size_t i = 0; i < part; ++i) sum += early ? places[i] : places[places.size() - 1 - i];
        return sum / static_cast<double>(part);
    };
    const double travel = middle(false) - middle(true);
    if (travel * q_.travel < -l_.travelLeast)
        add("mirrored", CheckLevel::Stop,
            msg("film-check.the-athlete-moves-the-wrong-way", {{"seenAs", q_.seenAs}}), travel,
            l_.travelLeast);
}

void Judge::rest() {
    if (info_.locationData) add("location", CheckLevel::Note, msg("film-check.tells-place"));
    if (!info_.audio) add("silent", CheckLevel::Note, msg("film-check.no-sound-in-the-film"));
}

/// From each damaged frame to the end of its group: what follows is built on it.
std::vector<FrameRange> damagedIn(const FilmSurvey& survey, const std::vector<std::int64_t>& groupStarts) {
    std::vector<FrameRange> damaged;
    std::int64_t until = -1;
    for (std::int64_t n = 0; n < std::ssize(survey.frames); ++n) {
        const FrameFacts& f = survey.frames[static_cast<std::size_t>(n)];
        if (!f.readable || f.damaged) {
            const auto next = std::upper_bound(groupStarts.begin(), groupStarts.end(), n);
            until = next == groupStarts.end() ? std::ssize(survey.frames) - 1 : *next - 1;
        }
        if (n > until) continue;
        if (!damaged.empty() && damaged.back().second == n - 1)
            damaged.back().second = n;
        else
            damaged.emplace_back(n, n);
    }
    return damaged;
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

Result<FilmCheck> checkFilm(Reader& reader, const CheckLimits& limits, const CheckQuestion& question,
                            std::stop_token stop, const std::function<void(double)>& progress) {
    auto survey =
        surveyFilm(reader, std::max<std::int64_t>(1, std::llround(limits.mostPictures)), stop, progress);
    if (!survey) return survey.error();
    const FilmInfo& info = reader.info();
    FilmCheck check;
    check.survey = std::move(*survey);
    check.heldTimes = heldTimes(check.survey);
    check.damaged = damagedIn(check.survey, reader.groupStarts());
    check.distinctFrames = (info.frames() + check.heldTimes - 1) / check.heldTimes;
    check.repeatPattern =
        check.heldTimes == 1 ? "none" : "each picture is shown " + std::to_string(check.heldTimes) + " times";
    Judge judge(info, check, limits, question);
    judge.all();
    check.lines = std::move(judge.lines);
    std::stable_sort(check.lines.begin(), check.lines.end(),
                     [](const auto& a, const auto& b) { return a.level > b.level; });
    return check;
}

} // namespace jg
