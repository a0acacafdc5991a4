// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/deliveries.h"

#include "film/median.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

// All own choice, from generated films.
constexpr double kMoving = 0.035;  // of the most motion
constexpr double kDelivery = 0.35; // a stretch with less than this is no delivery
constexpr double kRestS = 0.45;    // a shorter rest does not end a delivery
constexpr double kShortestS = 0.5;
constexpr double kMarginS = 0.35;
constexpr double kArrived = 0.0035; // of the width: the foot is where it stays
constexpr double kSurePlateau = 0.006;
constexpr double kShotOut = 0.04; // of the width: the hand in front of where the body was
constexpr double kSoleS = 0.014;  // the toe is in its place this much before the sole lands

using Series = std::vector<double>;

Series smoothMotion(const FilmSurvey& survey, double rate) {
    const auto half = static_cast<std::int64_t>(std::max(1.0, rate / 60));
    const std::int64_t frames = std::ssize(survey.frames);
    Series out(survey.frames.size());
    for (std::int64_t n = 0; n < frames; ++n) {
        double sum = 0;
        const std::int64_t from = std::max<std::int64_t>(0, n - half), to = std::min(frames - 1, n + half);
        for (std::int64_t k = from; k <= to; ++k) sum += survey.frames[static_cast<std::size_t>(k)].motion;
        out[static_cast<std::size_t>(n)] = sum / static_cast<double>(to - from + 1);
    }
    return out;
}

std::vector<FrameRange> movingStretches(const Series& motion, double rate) {
    const double most = *std::max_element(motion.begin(), motion.end());
    std::vector<FrameRange> stretches;
    for (std::int64_t n = 0; n < std::ssize(motion); ++n) {
        if (motion[static_cast<std::size_t>(n)] < kMoving * most) continue;
        if (!stretches.empty() && static_cast<double>(n - stretches.back().second) < kRestS * rate)
            stretches.back().second = n;
        else
            stretches.emplace_back(n, n);
    }
    std::erase_if(stretches, [&](const FrameRange& s) {
        const auto begin = motion.begin();
        const double peak = *std::max_element(begin + s.first, begin + s.second + 1);
        return peak < kDelivery * most || static_cast<double>(s.second - s.first) < kShortestS * rate;
    });
    return stretches;
}

/// One delivery read along its direction: all x grow the way the athlete goes.
class Reading {
public:
    Reading(const FilmSurvey& survey, const Series& motion, FrameRange stretch, double rate, bool fromSide)
        : s_(survey)
        , motion_(motion)
        , stretch_(stretch)
        , rate_(rate) {
        const Series late = lateThird(&Reading::middleAt);
        const double travel = late.empty() ? 0 : medianOf(late) - middleAt(stretch.first);
        sign_ = travel >= 0 ? 1 : -1;
        travels_ = fromSide && std::abs(travel) > 0.06;
    }

    SuggestedDelivery suggest() const {
        const auto margin = static_cast<std::int64_t>(kMarginS * rate_);
        SuggestedDelivery d;
        d.cut = {std::max<std::int64_t>(0, stretch_.first - margin),
                 std::min<std::int64_t>(std::ssize(s_.frames) - 1, stretch_.second + margin)};
        if (stretch_.first > 1) d.set = SuggestedFrame{stretch_.first - 1, false};
        if (!travels_) return d; // from the front or behind nothing is told by travel
        d.firstTouch = firstTouch();
        if (!d.firstTouch) return d;
        d.liftTop = liftTop(d.firstTouch->frame);
        d.release = release(d.firstTouch->frame);
        return d;
    }

private:
    const FrameFacts& at(std::int64_t n) const { return s_.frames[static_cast<std::size_t>(n)]; }
    double middleAt(std::int64_t n) const { return (at(n).left + at(n).right) / 2; }
    double feetFront(std::int64_t n) const { return sign_ > 0 ? at(n).feetRight : 1 - at(n).feetLeft; }
    double bodyFront(std::int64_t n) const { return sign_ > 0 ? at(n).right : 1 - at(n).left; }

    /// What the last third shows: late, but not only the very end, where they may walk back already.
    Series lateThird(double (Reading::*value)(std::int64_t) const) const {
        Series late;
        for (std::int64_t n = stretch_.first + (stretch_.second - stretch_.first) * 2 / 3;
             n <= stretch_.second; ++n)
            if (at(n).athlete) late.push_back((this->*value)(n));
        return late;
    }
    std::optional<SuggestedFrame> firstTouch() const;
    std::optional<SuggestedFrame> liftTop(std::int64_t touch) const;
    std::optional<SuggestedFrame> release(std::int64_t touch) const;

    const FilmSurvey& s_;
    const Series& motion_;
    FrameRange stretch_;
    double rate_;
    double sign_ = 1;
    bool travels_ = false;
};

std::optional<SuggestedFrame> Reading::firstTouch() const {
    // The foot stays where it landed until the end.
    const Series late = lateThird(&Reading::feetFront);
    if (late.size() < 5) return std::nullopt;
    const double place = medianOf(late);
    std::int64_t found = -1;
    for (std::int64_t n = stretch_.first; n <= stretch_.second; ++n)
        if (at(n).athlete && feetFront(n) > place - kArrived) {
            found = n;
            break;
        }
    if (found <= stretch_.first) return std::nullopt;
    double spread = 0;
    for (const double x : late) spread = std::max(spread, std::abs(x - place));
    const auto away = static_cast<std::int64_t>(rate_ * 0.08);
    const bool cameFast = found - away > stretch_.first && place - feetFront(found - away) > 0.05;
    const bool clear = spread < kSurePlateau && cameFast && !at(found).damaged;
    found = std::min(stretch_.second, found + static_cast<std::int64_t>(std::lround(kSoleS * rate_ - 0.5)));
    return SuggestedFrame{found, clear};
}

std::optional<SuggestedFrame> Reading::liftTop(std::int64_t touch) const {
    const auto from = stretch_.first + static_cast<std::int64_t>(rate_ * 0.12);
    const auto to = touch - static_cast<std::int64_t>(rate_ * 0.25);
    if (to <= from) return std::nullopt;
    const auto begin = motion_.begin();
    return SuggestedFrame{std::min_element(begin + from, begin + to) - begin, false};
}

std::optional<SuggestedFrame> Reading::release(std::int64_t touch) const {
    // The glove draws back after landing; then the throwing hand shoots out past it.
    const auto from = touch + static_cast<std::int64_t>(rate_ * 0.05);
    const auto last = std::min(stretch_.second, touch + static_cast<std::int64_t>(rate_ * 0.4));
    double least = 2;
    for (std::int64_t n = from; n <= last; ++n) {
        if (!at(n).athlete) continue;
        least = std::min(least, bodyFront(n));
        if (bodyFront(n) > least + kShotOut) return SuggestedFrame{n, false};
    }
    return std::nullopt;
}

} // namespace

std::vector<SuggestedDelivery> findDeliveries(const FilmSurvey& survey, double playRate, bool fromSide) {
    if (survey.frames.size() < 20 || playRate <= 0) return {};
    const Series motion = smoothMotion(survey, playRate);
    std::vector<SuggestedDelivery> all;
    if (*std::max_element(motion.begin(), motion.end()) < kLeastMotion) return all;
    for (const FrameRange& stretch : movingStretches(motion, playRate))
        all.push_back(Reading(survey, motion, stretch, playRate, fromSide).suggest());
    return all;
}

} // namespace jg
