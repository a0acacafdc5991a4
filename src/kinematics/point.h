// SPDX-License-Identifier: GPL-3.0-or-later
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

/// A clicked point and the error of the click on each axis, in source pixels: what differs from click to
/// click, and where this person always clicks the joint a little off.
struct ClickedPoint {
    ImagePoint at;
    double sigmaPx = 2.0;
    double leanPx = 0; ///< sd; nothing when the person's own error is known
    bool operator==(const ClickedPoint&) const = default;
};

/// Click error at native size until the coach has measured their own: 2-3 px, common practice, no source.
inline constexpr double kDefaultClickSigmaPx = 2.0;
/// That error is of a picture of so many lines, and grows with it.
inline constexpr double kClickLines = 720;
/// Until it is known where a person clicks a joint: so much of the standing height off, own choice.
inline constexpr double kDefaultLeanPart = 0.01;

} // namespace jg
