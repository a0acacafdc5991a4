// A frame with its marks as a picture.
#pragma once

#include "film/picture.h"
#include "letter/mark_scene.h"
#include "words/words.h"

#include <QImage>

namespace jg {

/// The picture's pixels without a copy; the Picture must outlive the image's use (it is kept inside).
QImage toImage(const Picture& picture);

/// The frame with its scene, cropped to what the scene is about when `crop` (3:2), at most `width` pixels
/// wide.
QImage renderStill(const Picture& picture, const MarkScene& scene, const Words& words, int width, bool crop);

} // namespace jg
