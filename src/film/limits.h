// SPDX-License-Identifier: GPL-3.0-or-later
// The largest and smallest films that are opened: what lies outside is refused with a sentence. All are own
// choices, well outside of what phones and cameras write.
#pragma once

#include <cstdint>

namespace jg {

/// Pixels of a picture, as it is coded and as it is shown: a little more than 8K.
inline constexpr std::int64_t kMostPixels = 8192LL * 4608LL;
/// A side of the picture as it is shown, in pixels.
inline constexpr int kLeastSide = 16, kMostSide = 8192;
/// How many times wider than high a pixel may be, or higher than wide.
inline constexpr int kMostPixelAspect = 4;
/// Pictures of a film: five hours at 240 a second.
inline constexpr std::int64_t kMostFrames = 4'500'000;
/// Tracks of a file: a phone writes fewer than ten.
inline constexpr int kMostStreams = 64;

} // namespace jg
