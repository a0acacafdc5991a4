// SPDX-License-Identifier: GPL-3.0-or-later
// How the colours of a decoded frame are coded. Inside the film room only.
#pragma once

#include "film/ffmpeg_handles.h"
#include "film/film_info.h"

namespace jg {

Transfer transferOf(const AVFrame& frame);
/// The matrix that a frame is read with: its own, BT.601 where it tells none that is known. Swscale and zimg
/// both number matrices as ITU-T H.273 does, and so does this.
AVColorSpace matrixOf(const AVFrame& frame);

} // namespace jg
