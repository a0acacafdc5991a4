// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/veils.h"

#include "letter/still.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr double kWider = 0.1;   ///< of the box's sides, in all
constexpr double kLostWider = 1; ///< where it was lost
constexpr int kSquares = 5;      ///< along the shorter side: too few for a face, own choice

PictureBox wider(PictureBox b, double part) {
    const double dx = part / 2 * (b.to.x - b.from.x), dy = part / 2 * (b.to.y - b.from.y);
    return {{b.from.x - dx, b.from.y - dy}, {b.to.x + dx, b.to.y + dy}};
}

PictureBox both(const PictureBox& a, const PictureBox& b) {
    return {{std::min(a.from.x, b.from.x), std::min(a.from.y, b.from.y)},
            {std::max(a.to.x, b.to.x), std::max(a.to.y, b.to.y)}};
}

PictureBox between(const PictureBox& a, const PictureBox& b, double part) {
    const auto mix = [&](ImagePoint p, ImagePoint q) {
        return ImagePoint{p.x + part * (q.x - p.x), p.y + part * (q.y - p.y)};
    };
    return {mix(a.from, b.from), mix(a.to, b.to)};
}

/// True when it was lost somewhere from `first` to `last`.
bool lostIn(const Veil& veil, std::int64_t first, std::int64_t last) {
    return std::any_of(veil.asks.begin(), veil.asks.end(),
                       [&](std::int64_t f) { return first <= f && f <= last; });
}

void smear(QImage& image, QRect box) {
    const QRect area = box & image.rect();
    if (area.isEmpty()) return;
    // Of the whole box, so that what is left of it at an edge shows no more than its middle does.
    const double square = std::max(1.0, std::min(box.width(), box.height()) / static_cast<double>(kSquares));
    const QSize few(std::max(1, static_cast<int>(std::lround(area.width() / square))),
                    std::max(1, static_cast<int>(std::lround(area.height() / square))));
    const QImage means = image.copy(area).scaled(few, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    QPainter p(&image);
    p.drawImage(area, means.scaled(area.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
}

} // namespace

PictureBox boxOn(const Veil& veil, std::int64_t frame) {
    const auto after = veil.boxes.lower_bound(frame);
    if (after == veil.boxes.end()) {
        const auto& [last, box] = *veil.boxes.rbegin();
        return wider(box, lostIn(veil, last, frame) ? kLostWider : kWider);
    }
    if (after->first == frame) return wider(after->second, kWider);
    if (after == veil.boxes.begin())
        return wider(after->second, lostIn(veil, frame, after->first) ? kLostWider : kWider);
    const auto before = std::prev(after);
    if (lostIn(veil, before->first + 1, after->first - 1))
        return wider(both(before->second, after->second), kWider);
    const double part =
        static_cast<double>(frame - before->first) / static_cast<double>(after->first - before->first);
    return wider(between(before->second, after->second, part), kWider);
}

void paintVeils(QImage& image, const Veils& veils, std::int64_t frame, const QTransform& toImagePixels) {
    for (const auto& [id, veil] : veils)
        smear(image, toImagePixels.mapRect(rectOf(boxOn(veil, frame))).toAlignedRect());
}

QImage shownImage(const Picture& picture, const Veils& veils, std::int64_t frame,
                  const std::optional<QSizeF>& native) {
    QImage image = toImage(picture);
    if (veils.empty() || image.isNull()) return image;
    image = image.copy();
    const QSizeF size = native.value_or(image.size());
    const double x = image.width() / size.width(), y = image.height() / size.height();
    paintVeils(image, veils, frame, QTransform::fromScale(x, y));
    return image;
}

} // namespace jg
