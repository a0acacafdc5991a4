// From decoded frames to pictures as shown. Inside the film room only.
#pragma once

#include "film/ffmpeg_handles.h"
#include "film/film_info.h"
#include "film/reader.h"

namespace jg {

Transfer transferOf(const AVFrame& frame);
/// The matrix that a frame is read with: its own, BT.601 where it tells none that is known. Swscale and zimg
/// both number matrices as ITU-T H.273 does, and so does this.
AVColorSpace matrixOf(const AVFrame& frame);

/// The small grey picture, `width` across when shown but not turned yet: of one size for all frames of a
/// film, also where a broken one changes its own. Errors: Internal.
Result<Reader::Grey> toGrey(const AVFrame& frame, const FilmInfo& info, int width);

/// Brings high-dynamic-range colours down to the screen's, in place. `Standard` changes nothing.
void toneMap(const PictureRoom& pixels, Transfer transfer);

} // namespace jg
