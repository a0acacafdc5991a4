// SPDX-License-Identifier: GPL-3.0-or-later
// What a decoded frame tells of itself.
#pragma once

#include "film/ffmpeg_handles.h"

#include <string>

namespace jg {

/// MD5 of a frame's planes without padding, as ffmpeg's framemd5 writes it for rawvideo.
std::string planesMd5(const AVFrame& frame);
/// True when the decoder had to guess parts of the frame; told reliably by a reader that watches errors.
bool isDamaged(const AVFrame& frame);

} // namespace jg
