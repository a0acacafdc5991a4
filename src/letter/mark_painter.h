// SPDX-License-Identifier: GPL-3.0-or-later
// Paints a scene over a picture.
#pragma once

#include "letter/mark_scene.h"
#include "letter/palette.h"
#include "review/record/replay.h"
#include "words/words.h"

#include <QPainter>

namespace jg {

/// How picture points lie in the view: view = offset + scale x picture.
struct ViewTransform {
    double scale = 1;
    QPointF offset;

    QPointF toView(ImagePoint p) const { return {offset.x() + scale * p.x, offset.y() + scale * p.y}; }
    ImagePoint toImage(QPointF v) const {
        return {(v.x() - offset.x()) / scale, (v.y() - offset.y()) / scale};
    }
    /// The picture fitted into `area`, centred.
    static ViewTransform fit(QSizeF picture, QRectF area);
};

/// Paints the scene, its labels in the reader's language. `unit` is the size of one design pixel in the
/// painter's units: line widths, point sizes and letters follow it, so that a still for print is as legible
/// as the window. Lines and points in `colour`. Labels keep clear of points, of each other and of the edges
/// of `area`.
void paintScene(QPainter& painter, const MarkScene& scene, const ViewTransform& view, QRectF area,
                const Words& words, double unit = 1, const QColor& colour = palette::chalk);

/// What was drawn in chalk while talking, and the pointer. A ring lies about where it began, a box between
/// where it began and ended.
void paintDrawn(QPainter& painter, const Drawn& drawn, const ViewTransform& view, double unit = 1);
void paintPointer(QPainter& painter, ImagePoint at, const ViewTransform& view, double unit = 1);

} // namespace jg
