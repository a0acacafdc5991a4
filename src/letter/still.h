// SPDX-License-Identifier: GPL-3.0-or-later
// A frame with its marks as a picture.
#pragma once

#include "film/picture.h"
#include "letter/mark_scene.h"
#include "words/words.h"

#include <QImage>
#include <QRectF>

#include <optional>

namespace jg {

/// The picture's pixels without a copy; the Picture must outlive the image's use (it is kept inside).
QImage toImage(const Picture& picture);

/// The frame, or a part of it, with its scene, `width` pixels wide and lit as all stills are. `frame` is what
/// may be shown (shownImage()).
QImage renderStill(const QImage& frame, const MarkScene& scene, const Words& words, int width,
                   const std::optional<QRectF>& part = std::nullopt);

/// A 3:2 part of a delivery's picture: as high as what is marked on all of its frames, round the athlete on
/// this one; the whole picture while little is marked. Pure.
QRectF stillPart(const DeliveryMarks& marks, std::int64_t frame, QSizeF picture);

/// Brings a still to the brightness that all are shown in, within limits: a night stays a night.
void lightAlike(QImage& image);

} // namespace jg
