// SPDX-License-Identifier: GPL-3.0-or-later
// From decoded frames to pictures as shown.
#pragma once

#include "base/result.h"
#include "film/ffmpeg_handles.h"
#include "film/film_info.h"
#include "film/frame_cache.h"
#include "film/picture.h"

namespace jg {

/// The frame as shown, no wider than `maxWidth` when that is not 0. Any thread. Errors: Internal.
Result<Picture> toPicture(const AVFrame& frame, const FilmInfo& info, int maxWidth = 0);
/// A part of the frame as shown at the size of the room. Any thread. Errors: BadInput (as Reader::part()),
/// Internal.
Status writePart(const AVFrame& frame, const FilmInfo& info, const PicturePart& part, const PictureRoom& to);

/// The frame's part as an Encoder's planes; empty as Reader::planes(). Any thread. Errors: as writePart().
Result<FrameHandle> toPlanes(const AVFrame& frame, const FilmInfo& info, const PicturePart& part, int width,
                             int height);

/// The small grey picture, `width` across when shown but not turned yet: of one size for all frames of a
/// film, also where a broken one changes its own. Errors: Internal.
Result<GreyPicture> toGrey(const AVFrame& frame, const FilmInfo& info, int width);

/// Brings high-dynamic-range colours down to the screen's, in place. `Standard` changes nothing.
void toneMap(const PictureRoom& pixels, Transfer transfer);

} // namespace jg
