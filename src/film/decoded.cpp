// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/decoded.h"

#include <array>
#include <cstdint>
#include <vector>

extern "C" {
#include <libavutil/imgutils.h>
#include <libavutil/md5.h>
}

namespace jg {

std::string planesMd5(const AVFrame& frame) {
    const auto format = static_cast<AVPixelFormat>(frame.format);
    const int size = av_image_get_buffer_size(format, frame.width, frame.height, 1);
    if (size <= 0) return {};
    std::vector<std::uint8_t> bytes(static_cast<std::size_t>(size));
    av_image_copy_to_buffer(bytes.data(), size, frame.data, frame.linesize, format, frame.width, frame.height,
                            1);
    std::array<std::uint8_t, 16> digest{};
    av_md5_sum(digest.data(), bytes.data(), bytes.size());
    std::string text;
    for (const std::uint8_t b : digest)
        for (const int nibble : {b >> 4, b & 15}) text += "0123456789abcdef"[nibble];
    return text;
}

bool isDamaged(const AVFrame& frame) {
    return (frame.flags & AV_FRAME_FLAG_CORRUPT) != 0 || frame.decode_error_flags != 0;
}

} // namespace jg
