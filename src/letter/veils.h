// SPDX-License-Identifier: GPL-3.0-or-later
// Other people in the picture, made unrecognizable wherever it is shown.
#pragma once

#include "film/picture.h"
#include "review/record/review.h"

#include <QImage>
#include <QRectF>
#include <QTransform>

#include <optional>

namespace jg {

/// A box in picture coordinates as Qt has it. Pure.
inline QRectF rectOf(const PictureBox& box) {
    return {QPointF(box.from.x, box.from.y), QPointF(box.to.x, box.to.y)};
}

/// Where a veil lies on a frame, a tenth wider than it was drawn; where it was lost and nobody has drawn it
/// again, wider still: over both ends of the gap, or twice its size beyond its last frame. Pure.
PictureBox boxOn(const Veil& veil, std::int64_t frame);

/// Every veil of a frame over an image of it or of a part of it; `toImagePixels` maps the picture's points.
void paintVeils(QImage& image, const Veils& veils, std::int64_t frame, const QTransform& toImagePixels);

/// The frame with every veil over it, as large as the picture, which may be smaller than `native`. Under a
/// veil nothing is left but the mean colours of a few squares, faded into each other: nothing can be got
/// back. Shares the pixels where there is no veil; the Picture must outlive the image's use then.
QImage shownImage(const Picture& picture, const Veils& veils, std::int64_t frame,
                  const std::optional<QSizeF>& native = {});

} // namespace jg
