// From decoded frames to pictures as shown. Inside the film room only.
#pragma once

#include "film/ffmpeg_handles.h"
#include "film/film_info.h"
#include "film/picture.h"

namespace jg {

/// Converts to BGRX with the frame's own colour matrix and range, square pixels, rotated and mirrored as the
/// film says. Source: ITU-R BT.601/709 coefficients through libswscale.
Result<Picture> toPicture(const AVFrame* frame, const FilmInfo& info);

} // namespace jg
