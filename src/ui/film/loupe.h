// SPDX-License-Identifier: GPL-3.0-or-later
// A magnifying glass in a corner, while a point is placed.
#pragma once

#include <QFont>
#include <QImage>
#include <QRectF>
#include <QString>

class QPainter;

namespace jg::ui {

/// Light words on a dark, half-clear plate, in the painter's font.
void paintPlate(QPainter& painter, const QRectF& box, const QString& words);

/// What lies under the mouse, five times as large, in the upper corner of `area` away from it. `image` lies
/// at `place` in the same coordinates; `words` stand below.
void paintLoupe(QPainter& painter, const QRectF& area, QPointF mouse, const QImage& image,
                const QRectF& place, const QString& words, const QFont& font);

} // namespace jg::ui
