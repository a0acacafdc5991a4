#include "film/film_check.h"

#include "base/number.h"
#include "film/repeats.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

std::string rounded(double v, int digits = 0) {
    return fixed(v, digits);
}

std::string counted(std::size_t n, const std::string& what) {
    return std::to_string(n) + " " + what + (n == 1 ? "" : "s");
}

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
    void say(const char* id, CheckLevel level, std::string text, double figure, double limit,
             std::optional<FrameRange> frames = {}) {
        lines.push_back({id, level, std::move(text), frames, figure, limit});
    }
    void say(const char* id, CheckLevel level, std::string text) {
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
        say("cut-short", CheckLevel::Warn,
            "The file ends early: " + std::to_string(info_.frames()) + " of " +
                std::to_string(std::max(info_.statedFrames, info_.frames())) +
                " pictures can be read. Ask for it again.");
    if (last() + 1 < info_.frames())
        say("long", CheckLevel::Warn,
            "A long film: only its first " + std::to_string(last() + 1) + " of " +
                std::to_string(info_.frames()) +
                " pictures were looked through. Cut the delivery out of it and take that in.",
            static_cast<double>(info_.frames()), l_.mostPictures);
    std::int64_t bad = 0;
    for (const auto& [first, last] : check_.damaged) bad += last - first + 1;
    if (bad > 0)
        say("damaged", CheckLevel::Warn,
            std::to_string(bad) + (bad == 1 ? " picture is" : " pictures are") +
                " damaged; they are marked and can't be measured in silence. Ask for the film again.",
            static_cast<double>(bad), 0,
            FrameRange{check_.damaged.front().first, check_.damaged.back().second});
}

void Judge::rate() {
    if (info_.captureRate.source == RateSource::Assumed && q_.statedFps <= 0)
        say("rate-assumed", CheckLevel::Note,
            "The capture rate is taken as the play rate, " + rounded(fps_) +
                " a second; say so if it was slow motion.");
    if (fps_ > 0 && fps_ < l_.enoughRateFps)
        say("rate-low", CheckLevel::Warn,
            "Release can't be placed finer than " + rounded(l_.handInchesPerSecond / fps_) + " in at " +
                rounded(fps_) + " a second: film at 120 or more.",
            fps_, l_.enoughRateFps);
    if (const int held = check_.heldTimes; held > 1)
        say("repeats", CheckLevel::Note,
            "A slow-motion copy: each picture is shown " + std::to_string(held) + " times.", held, 1);
    else if (blended_)
        say("blended", CheckLevel::Warn,
            "Every second picture is mixed from its neighbours: an editor raised the rate. Send the film as "
            "the "
            "camera wrote it.");
    const bool gaps = lost();
    if (info_.variableRate && !gaps)
        say("rate-varies", CheckLevel::Note,
            "Pictures do not follow each other evenly; times are taken from each picture's own stamp.");
}

/// True when time has gaps: then the rate varies for that reason.
bool Judge::lost() {
    const auto gaps = gapsInTime(info_);
    const auto jumps =
        gaps.empty() && check_.heldTimes == 1 && !blended_ ? jumpsInMotion(s_) : std::vector<std::int64_t>{};
    if (!gaps.empty())
        say("frames-missing", CheckLevel::Warn,
            counted(gaps.size(), "gap") + " in time, the first before picture " +
                std::to_string(gaps.front()) +
                ": the phone dropped pictures there. Times hold; what happened in between can't be seen.",
            static_cast<double>(gaps.size()), 0, FrameRange{gaps.front(), gaps.back()});
    if (!jumps.empty())
        say("frames-cut", CheckLevel::Warn,
            "Everything jumps twice its way at picture " + std::to_string(jumps.front()) +
                ": a picture seems to be missing without a gap in time. Times across it may be a frame "
                "short.",
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
        say("blurred", CheckLevel::Warn,
            "The fast part is smeared: in pictures " + std::to_string(std::min(first, second)) + " and " +
                std::to_string(std::max(first, second)) +
                " the wall shows through the arm. Film in more light, so that the shutter is short.",
            clear, l_.fastClearLeast, FrameRange{std::min(first, second), std::max(first, second)});
}

void Judge::light() {
    double sum = 0;
    std::int64_t readable = 0;
    for (const FrameFacts& f : s_.frames)
        if (f.readable) sum += f.brightness, ++readable;
    const double mean = readable > 0 ? sum / static_cast<double>(readable) : 0;
    dark_ = mean < l_.darkMean;
    if (dark_)
        say("dark", CheckLevel::Warn,
            "Too dark: limbs are hard to tell from the wall. Film with the lamps on.", mean, l_.darkMean);
    if (info_.transfer != Transfer::Standard)
        say("hdr", CheckLevel::Note,
            "Filmed with high dynamic range: colours are brought down for the screen.");
}

void Judge::size() {
    if (const int side = std::min(info_.width, info_.height); side < l_.smallSidePx)
        say("small", CheckLevel::Warn,
            "The picture is small (" + std::to_string(info_.width) + " x " + std::to_string(info_.height) +
                "): angles will carry a large error.",
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
        say("athlete-small", CheckLevel::Warn,
            "The athlete fills " + rounded(tall * 100) +
                " % of the picture's height: stand closer or hold the phone so "
                "that it is two thirds.",
            tall, l_.athleteLeastHeight);
    if (const double part = static_cast<double>(atEdge) / static_cast<double>(bodyFrames_);
        part > l_.edgeLeastFrames)
        say("athlete-cut", CheckLevel::Warn,
            "The athlete leaves the picture in " + std::to_string(atEdge) +
                " pictures: leave room on all sides.",
            part, l_.edgeLeastFrames, FrameRange{first, lastCut});
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
        say("shake", CheckLevel::Warn,
            "The camera shakes by about " + rounded(shake * info_.width) +
                " pixels: lean the phone on something "
                "firm.",
            shake, l_.shakeLargest);
    if (s_.lines.tiltDeg && std::abs(*s_.lines.tiltDeg) > l_.tiltLargestDeg)
        say("tilt", CheckLevel::Warn,
            "The camera is tilted by about " + rounded(std::abs(*s_.lines.tiltDeg)) +
                " degrees: hold it level, or draw a plumb line before measuring.",
            *s_.lines.tiltDeg, l_.tiltLargestDeg, FrameRange{0, 0});
    if (q_.fromSide && s_.lines.turnedDeg && std::abs(*s_.lines.turnedDeg) > l_.squareLargestDeg)
        say("not-square", CheckLevel::Warn,
            "The camera is turned away from square, roughly by " + rounded(std::abs(*s_.lines.turnedDeg)) +
                " degrees or more: angles read too open or too closed.",
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
        say("starts-late", CheckLevel::Warn,
            "The film begins in the middle of the delivery: start filming before the athlete is set.", start,
            l_.startMotionLargest, FrameRange{0, span});
    if (end > l_.endMotionLargest)
        say("ends-early", CheckLevel::Warn,
            "The film ends before the athlete has finished: keep filming until they stand.", end,
            l_.endMotionLargest, FrameRange{last() - span, last()});
    if (start > l_.startMotionLargest) return;
    std::int64_t longest = 0, run = 0;
    for (const FrameFacts& f : s_.frames) {
        run = f.motion < l_.stillMotionLargest * mostMotion_ ? run + 1 : 0;
        longest = std::max(longest, run);
        if (f.motion > 0.5 * mostMotion_) break;
    }
    if (const double still = static_cast<double>(longest) / playRate; still < l_.stillLeastS)
        say("no-stillness", CheckLevel::Note,
            "The athlete never stands still before the delivery: the set position is a guess.", still,
            l_.stillLeastS);
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
        say("mirrored", CheckLevel::Stop,
            "The athlete moves the wrong way for " + q_.seenAs +
                ": the film is mirrored, or the hand or the view is noted wrongly. Put it right before "
                "measuring.",
            travel, l_.travelLeast);
}

void Judge::rest() {
    if (info_.locationData)
        say("location", CheckLevel::Note,
            "The file says where it was filmed. That stays here and is never sent.");
    if (!info_.audio) say("silent", CheckLevel::Note, "No sound in the film.");
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
