// SPDX-License-Identifier: GPL-3.0-or-later
// A picture as shown: after rotation, square pixels.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

namespace jg {

/// A rectangle of a picture as shown, in its pixels; its edges may lie between them.
struct PicturePart {
    double left = 0;
    double top = 0;
    double width = 0;
    double height = 0;
    bool operator==(const PicturePart&) const = default;
};

/// Where pixels are written, in the order of a Picture's: `height` rows of `width`, `stride` bytes apart.
struct PictureRoom {
    std::uint8_t* bgrx = nullptr;
    int stride = 0;
    int width = 0;
    int height = 0;
};

/// 32-bit pixels in the order B, G, R, unused; rows follow each other without gaps. Shares its pixels when
/// copied; they are never changed after creation, so a Picture may be read from any thread.
struct Picture {
    int width = 0;
    int height = 0;
    std::shared_ptr<const std::vector<std::uint8_t>> pixels;

    bool empty() const { return !pixels; }
    int stride() const { return width * 4; }
    const std::uint8_t* row(int y) const {
        return pixels->data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(stride());
    }
};

/// A small grey picture: rows of `width` bytes.
struct GreyPicture {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> pixels;
    double mean() const; ///< brightness, 0..1
};

} // namespace jg
