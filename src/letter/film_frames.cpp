// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/film_frames.h"

#include "film/true_time.h"
#include "letter/film_plan.h"
#include "letter/veils.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// The whole pixels that lie in a rectangle, from an even place on and even in number.
QRect evenPixelsWithin(QRectF r) {
    constexpr double kRounding = 1e-6;
    const auto first = [](double v) { return 2 * static_cast<int>(std::ceil(v / 2 - kRounding)); };
    const auto end = [](double v) { return 2 * static_cast<int>(std::floor(v / 2 + kRounding)); };
    const QPoint from(first(r.left()), first(r.top()));
    return {from, QSize(end(r.right()) - from.x(), end(r.bottom()) - from.y())};
}

} // namespace

Result<FrameTimes> FilmFrames::timesOf(const ToldDelivery& told) {
    const std::pair key(told.clip, told.captureFps);
    if (const auto known = times_.find(key); known != times_.end()) return known->second;
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    return times_[key] = trueSeconds((*reader)->info(), told.captureFps);
}

FilmFrames::Placed FilmFrames::placed(const ToldDelivery& told, const FilmInfo& film, QRectF area, bool own,
                                      const std::optional<PictureBox>& lookedAt) const {
    const QSizeF size(film.width, film.height);
    const QRectF part = lookedAt ? inShape(rectOf(*lookedAt), size, area.size())
                                 : athletePart(told.marks, own ? &r_.review : nullptr, size, area.size());
    const double scale = area.width() / part.width();
    const ViewTransform view{scale, area.topLeft() - part.topLeft() * scale};
    const QRect shown = evenPixelsWithin(QRectF(view.offset, size * scale) & area);
    const ImagePoint from = view.toImage(shown.topLeft());
    return {view, shown, {from.x, from.y, shown.width() / scale, shown.height() / scale}};
}

Result<ViewTransform> FilmFrames::paint(QPainter& p, const ToldDelivery& told, std::int64_t frame,
                                        QRectF area, bool own, const std::optional<PictureBox>& lookedAt) {
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    const auto [view, shown, part] = placed(told, (*reader)->info(), area, own, lookedAt);
    p.setClipRect(area);
    if (shown.isEmpty()) return view;
    const auto known = std::find_if(backdrops_.begin(), backdrops_.end(), [&](const Backdrop& b) {
        return b.clip == told.clip && b.frame == frame && b.part == part && b.shown == shown;
    });
    if (known != backdrops_.end()) {
        p.drawImage(shown.topLeft(), known->image);
        return view;
    }
    QImage image(shown.size(), QImage::Format_RGB32);
    const PictureRoom room{image.bits(), static_cast<int>(image.bytesPerLine()), image.width(),
                           image.height()};
    if (auto written = (*reader)->part(FrameNumber{frame}, part, room); !written) return written.error();
    const QPointF offset = view.offset - shown.topLeft();
    paintVeils(image, told.marks.veils, frame,
               QTransform(view.scale, 0, 0, view.scale, offset.x(), offset.y()));
    p.drawImage(shown.topLeft(), image);
    constexpr std::size_t kMost = 2; // beside each other
    if (backdrops_.size() == kMost) backdrops_.pop_front();
    backdrops_.push_back({told.clip, frame, part, shown, std::move(image)});
    return view;
}

Result<bool> FilmFrames::lay(std::vector<Laid>& over, const ToldDelivery& told, std::int64_t frame,
                             QRectF area, bool own) {
    if (!told.marks.veils.empty()) return false;
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    const auto [view, shown, part] = placed(told, (*reader)->info(), area, own, {});
    if (shown.isEmpty()) return false;
    auto planes = (*reader)->planes(FrameNumber{frame}, part, shown.width(), shown.height());
    if (!planes) return planes.error();
    if (!*planes) return false;
    over.push_back({std::move(*planes), shown.topLeft()});
    return true;
}

} // namespace jg
