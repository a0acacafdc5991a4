// SPDX-License-Identifier: GPL-3.0-or-later
// What a film is: facts from its container and its index.
#pragma once

#include "base/exact_time.h"
#include "base/result.h"

#include <cstdint>
#include <string>
#include <vector>

namespace jg {

/// Where the capture rate comes from.
enum class RateSource { Metadata, Stated, Assumed, Unknown };
const char* idOf(RateSource source);

struct CaptureRate {
    double fps = 0; ///< 0 = unknown
    RateSource source = RateSource::Unknown;
};

/// How brightness is coded: the screen's own way, or one of the two high-dynamic-range ways (ITU-R BT.2100).
enum class Transfer { Standard, Pq, Hlg };

/// Facts about a film. Sizes as shown, in square pixels.
struct FilmInfo {
    int width = 0;
    int height = 0;
    int rotationDeg = 0; ///< clockwise turn applied for showing: 0, 90, 180, 270
    bool mirrored = false;
    std::string codec;
    std::string pixelFormat;
    double durationS = 0;
    Rational playRate;
    bool variableRate = false;
    CaptureRate captureRate;
    bool audio = false;
    bool locationData = false;
    std::vector<std::string> privateTags; ///< "name: value" of what tells place, device or person
    Transfer transfer = Transfer::Standard;
    Rational timeBase;
    std::vector<Pts> pts;          ///< one a frame, in display order
    std::int64_t statedFrames = 0; ///< what the container promises; 0 = it does not say
    bool complete = true;          ///< false: fewer frames than promised, or it ends in an error
    std::int64_t frames() const { return static_cast<std::int64_t>(pts.size()); }
};

} // namespace jg
