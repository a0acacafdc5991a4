// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/film_version.h"

extern "C" {
#include <libavutil/avutil.h>
}

namespace jg {

std::string ffmpegVersion() {
    return av_version_info();
}

} // namespace jg
