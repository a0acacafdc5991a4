// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/film_plan.h"

#include "letter/film_recipe.h"
#include "voice/microphone.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

std::int64_t samplesOf(double seconds) {
    return std::llround(seconds * kSampleRate);
}

/// First and last frame of the delivery as it is shown whole: its positions, else its cut, else all.
FrameSpan wholeOf(const DeliveryMarks& marks, std::int64_t frames) {
    std::vector<std::int64_t> set;
    for (const auto& [moment, mark] : marks.moments)
        if (mark.frame) set.push_back(*mark.frame);
    if (set.size() >= 2) {
        const auto [first, last] = std::minmax_element(set.begin(), set.end());
        return {*first, *last};
    }
    return marks.cut.value_or(FrameSpan{0, frames - 1});
}

FilmSegment wholeSegment(const FilmRecipe& r, const FrameTimes& times) {
    const auto at = [&](std::int64_t frame) {
        return times[static_cast<std::size_t>(
            std::clamp<std::int64_t>(frame, 0, static_cast<std::int64_t>(times.size()) - 1))];
    };
    const FrameSpan span = wholeOf(r.marks, static_cast<std::int64_t>(times.size()));
    const double from = std::max(times.front(), at(span.first) - kRoundSeconds),
                 to = std::min({times.back(), at(span.last) + kRoundSeconds, from + kMostWholeSeconds});
    return {FilmSegment::Kind::Whole,
            r.words(wholeTitle(r)),
            samplesOf(to - from),
            nullptr,
            nullptr,
            r.marks.number,
            from,
            1};
}

/// The moment before a stop's frame; nothing where the film has nothing before it.
std::optional<FilmSegment> motionSegment(const Stop& stop, const std::string& title,
                                         const FrameTimes& times) {
    const auto at = static_cast<std::size_t>(
        std::clamp<std::int64_t>(stop.frame, 0, static_cast<std::int64_t>(times.size()) - 1));
    const double from = std::max(times.front(), times[at] - kMotionSeconds);
    if (from >= times[at]) return std::nullopt;
    return FilmSegment{FilmSegment::Kind::Motion,
                       title,
                       samplesOf((times[at] - from) / kMotionSpeed),
                       &stop,
                       nullptr,
                       stop.delivery,
                       from,
                       kMotionSpeed};
}

} // namespace

Result<std::vector<FilmSegment>> planFilm(const FilmRecipe& r, const TimesOf& timesOf) {
    std::vector<FilmSegment> all;
    all.push_back({FilmSegment::Kind::Title, r.words(msg("film.hello")), samplesOf(kTitleSeconds)});
    auto lead = timesOf(r.marks.number);
    if (!lead) return lead.error();
    if (lead->size() > 1) all.push_back(wholeSegment(r, *lead));
    for (const Stop& s : r.review.stops) {
        const auto take = r.review.takes.find(s.id);
        if (take == r.review.takes.end()) continue;
        const std::string title = r.words(asIs(s.title));
        bool moved = false;
        if (!s.still && s.kind != StopKind::Recap) {
            auto times = timesOf(s.delivery);
            if (!times) return times.error();
            if (auto motion = times->empty() ? std::nullopt : motionSegment(s, title, *times)) {
                all.push_back(std::move(*motion));
                moved = true;
            }
        }
        all.push_back({FilmSegment::Kind::Said, moved ? "" : title,
                       take->second.kept() * kSampleRate / take->second.sampleRate, &s, &take->second,
                       s.delivery});
    }
    all.push_back({FilmSegment::Kind::Closing, r.words(msg("film.to-work-on")), samplesOf(kClosingSeconds)});
    return all;
}

std::int64_t frameAt(const FilmSegment& segment, const FrameTimes& times, double seconds) {
    constexpr double kSameMoment = 1e-6; // times are sums of rationals
    const double wanted = segment.fromS + seconds * segment.speed + kSameMoment;
    const auto after = std::upper_bound(times.begin(), times.end(), wanted);
    return std::max<std::int64_t>(0, std::distance(times.begin(), after) - 1);
}

FilmLayout layOutFilm(QSize size) {
    constexpr double kLabelPx = 13.5;   // of paintScene()'s labels at unit 1
    constexpr double kRoomy = 1.3;      // upright, there is room for more than the least
    constexpr double kWideWords = 0.22; // share of the height
    constexpr double kUprightWords = 0.34;
    const double w = size.width(), h = size.height();
    FilmLayout l;
    l.upright = h > w;
    const double words = h * (l.upright ? kUprightWords : kWideWords);
    l.picture = QRectF(0, 0, w, std::round(h - words));
    constexpr double kSeam = 0.004; // of the width, between two pictures
    const double seam = std::round(kSeam * w),
                 half = std::round(((l.upright ? l.picture.height() : w) - seam) / 2);
    l.halves = l.upright ? std::array{QRectF(0, 0, w, half), QRectF(0, half + seam, w, half)}
                         : std::array{QRectF(0, 0, half, l.picture.height()),
                                      QRectF(half + seam, 0, half, l.picture.height())};
    l.words = QRectF(0, l.picture.bottom(), w, h - l.picture.bottom());
    const double least = kLeastOnPhone * w / kPhoneWidth;
    l.em = least * (l.upright ? kRoomy * 1.1 : 1.1);
    l.markUnit = least / kLabelPx * (l.upright ? kRoomy : 1.0);
    return l;
}

namespace {

/// All places that matter on a delivery's film.
QRectF placesOn(const DeliveryMarks& marks, const Review* review, int& count) {
    QRectF all;
    const auto add = [&](ImagePoint p) { all |= QRectF(p.x - 0.5, p.y - 0.5, 1, 1); };
    for (const auto& [key, mark] : marks.points)
        if (mark.hidden.empty()) add(mark.point.at), ++count;
    for (const auto& [id, mark] : marks.marks)
        for (const ImagePoint p : mark.points) add(p);
    if (!review) return all;
    for (const Stop& s : review->stops) {
        const auto take = review->takes.find(s.id);
        if (s.delivery != marks.number || take == review->takes.end()) continue;
        for (const TakeEvent& e : take->second.events)
            if (e.kind == TakeEventKind::StrokeBegin || e.kind == TakeEventKind::StrokeTo) add(e.at);
    }
    return all;
}

} // namespace

QRectF inShape(QRectF part, QSizeF picture, QSizeF area) {
    const double shape = area.width() / area.height();
    const QSizeF size = part.width() < part.height() * shape ? QSizeF(part.height() * shape, part.height())
                                                             : QSizeF(part.width(), part.width() / shape);
    QRectF cut(QPointF(), size);
    cut.moveCenter(part.center());
    const auto held = [](double at, double length, double whole) {
        return length >= whole ? (whole - length) / 2 : std::clamp(at, 0.0, whole - length);
    };
    cut.moveLeft(held(cut.left(), cut.width(), picture.width()));
    cut.moveTop(held(cut.top(), cut.height(), picture.height()));
    return cut;
}

QRectF athletePart(const DeliveryMarks& marks, const Review* review, QSizeF picture, QSizeF area) {
    constexpr int kFew = 4;        // points that tell no body
    constexpr double kRoom = 0.12; // of the body's height, on each side
    const QRectF full(QPointF(), picture);
    int count = 0;
    QRectF part = placesOn(marks, review, count);
    if (count < kFew) part = full;
    const double room = kRoom * part.height();
    return inShape(part.adjusted(-room, -room, room, room) & full, picture, area);
}

} // namespace jg
