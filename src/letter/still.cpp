#include "letter/still.h"

#include "letter/mark_painter.h"

#include <algorithm>

namespace jg {

QImage toImage(const Picture& picture) {
    if (picture.empty()) return {};
    auto* keeper = new std::shared_ptr<const std::vector<std::uint8_t>>(picture.pixels);
    return QImage(
        picture.pixels->data(), picture.width, picture.height, picture.stride(), QImage::Format_RGB32,
        [](void* kept) { delete static_cast<std::shared_ptr<const std::vector<std::uint8_t>>*>(kept); },
        keeper);
}

namespace {

/// A 3:2 part of the picture round the athlete's points, with room about them.
QRectF cropFor(const MarkScene& scene, QSizeF full) {
    QRectF all;
    for (const ScenePoint& p : scene.points) all |= QRectF(p.at.x - 1, p.at.y - 1, 2, 2);
    if (all.isNull()) return {QPointF(), full};
    // Never closer than the whole athlete: four fifths of the picture's height.
    const double height =
        std::min(std::max({all.width() * 1.6 / 1.5, all.height() * 1.6, full.height() * 0.8}), full.height());
    const QSizeF size(std::min(height * 1.5, full.width()), height);
    QRectF crop(QPointF(all.center().x() - size.width() / 2, full.height() * 0.52 - size.height() / 2), size);
    crop.moveLeft(std::clamp(crop.left(), 0.0, full.width() - size.width()));
    crop.moveTop(std::clamp(crop.top(), 0.0, full.height() - size.height()));
    return crop;
}

} // namespace

QImage renderStill(const Picture& picture, const MarkScene& scene, const Words& words, int width, bool crop) {
    const QSizeF full(picture.width, picture.height);
    const QRectF part = crop ? cropFor(scene, full) : QRectF(QPointF(), full);
    const double scale = width / part.width();
    QImage out(width, std::max(1, static_cast<int>(part.height() * scale + 0.5)), QImage::Format_RGB32);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(QRectF(0, 0, out.width(), out.height()), toImage(picture), part);
    const ViewTransform view{scale, -part.topLeft() * scale};
    paintScene(painter, scene, view, QRectF(0, 0, out.width(), out.height()), words,
               std::max(1.0, width / 400.0));
    return out;
}

} // namespace jg
