// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/loupe.h"

#include "letter/palette.h"

#include <QFontMetricsF>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace jg::ui {

namespace {

constexpr double kGlassRadius = 70;
constexpr double kGlassZoom = 5;
constexpr double kFromEdge = 24;
constexpr double kMostWords = 300;

} // namespace

void paintPlate(QPainter& p, const QRectF& box, const QString& words) {
    QColor back = palette::casing;
    back.setAlphaF(0.8f);
    p.setPen(Qt::NoPen);
    p.setBrush(back);
    p.drawRoundedRect(box, 3, 3);
    p.setPen(palette::chalk);
    p.drawText(box, Qt::AlignCenter, words);
}

void paintLoupe(QPainter& p, const QRectF& area, QPointF mouse, const QImage& image, const QRectF& place,
                const QString& words, const QFont& font) {
    const bool right = mouse.x() > area.center().x();
    const QPointF centre(right ? area.left() + kFromEdge + kGlassRadius
                               : area.right() - kFromEdge - kGlassRadius,
                         area.top() + kFromEdge - 2 + kGlassRadius);
    const QPointF to(kGlassRadius, kGlassRadius);
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath circle;
    circle.addEllipse(centre, kGlassRadius, kGlassRadius);
    p.setClipPath(circle);
    p.fillRect(QRectF(centre - to, centre + to), palette::stage);
    p.drawImage(QRectF(centre + (place.topLeft() - mouse) * kGlassZoom, place.size() * kGlassZoom), image);
    p.setClipping(false);
    p.setPen(QPen(palette::chalk, 2));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(centre, kGlassRadius, kGlassRadius);
    p.setPen(QPen(palette::clay, 1.4));
    p.drawLine(centre - QPointF(20, 0), centre + QPointF(20, 0));
    p.drawLine(centre - QPointF(0, 20), centre + QPointF(0, 20));
    if (!words.isEmpty()) {
        p.setFont(font);
        const double w = std::min(QFontMetricsF(font).horizontalAdvance(words) + 12, kMostWords);
        QRectF label(centre.x() - w / 2, centre.y() + kGlassRadius + 6, w, 20);
        if (label.right() > area.right() - 6) label.moveRight(area.right() - 6);
        if (label.left() < area.left() + 6) label.moveLeft(area.left() + 6);
        paintPlate(p, label, words);
    }
    p.restore();
}

} // namespace jg::ui
