// Points in the picture, with their click error.
#pragma once

namespace jg {

/// A place in the picture as shown (after rotation, square pixels): x right, y down, in source pixels.
struct ImagePoint {
    double x = 0;
    double y = 0;
    bool operator==(const ImagePoint&) const = default;
};

inline ImagePoint operator-(ImagePoint a, ImagePoint b) {
    return {a.x - b.x, a.y - b.y};
}
inline ImagePoint operator+(ImagePoint a, ImagePoint b) {
    return {a.x + b.x, a.y + b.y};
}

/// A clicked point and the standard error of the click on each axis, in source pixels.
struct ClickedPoint {
    ImagePoint at;
    double sigmaPx = 2.0;
    bool operator==(const ClickedPoint&) const = default;
};

/// Click error at native size until the coach has measured their own: 2-3 px, common practice, no source.
inline constexpr double kDefaultClickSigmaPx = 2.0;

} // namespace jg
