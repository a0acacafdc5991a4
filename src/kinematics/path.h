// SPDX-License-Identifier: GPL-3.0-or-later
// A point's way through the frames, and what can be read from it.
#pragma once

#include "kinematics/estimate.h"
#include "kinematics/point.h"

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

namespace jg {

/// A place on one frame, in source pixels, with its standard error on each axis.
struct PathPlace {
    std::int64_t frame = 0;
    ImagePoint at;
    double sdPx = 0;
    bool operator==(const PathPlace&) const = default;
};

/// Places by rising frame; frames may be missing.
using Path = std::vector<PathPlace>;

/// A number on one frame.
struct FrameValue {
    std::int64_t frame = 0;
    Estimate value;
};

/// Speed on each frame that has both neighbours: their distance over the time between, pixels a second. The
/// rate is of capture. Empty when it is 0.
std::vector<FrameValue> speeds(std::span<const PathPlace> path, double captureFps);

/// The same along a direction of length 1; negative against it.
std::vector<FrameValue> speedsAlong(std::span<const PathPlace> path, ImagePoint direction, double captureFps);

/// An event's frame, give or take.
struct PathEvent {
    std::int64_t frame = 0;
    std::int64_t plusMinus = 1;
};

/// First frame of the rise to the largest value: the last one at or below `part` of it before it is reached.
/// The give and take is how long the rise stays within the errors of that limit. Nothing when the largest
/// value is not above its own error.
std::optional<PathEvent> startOfMotion(std::span<const FrameValue> speeds, double part = 0.15);

/// The frame at which the point is highest (least y) or lowest; all frames alike within the errors count.
std::optional<PathEvent> highest(std::span<const PathPlace> path);
std::optional<PathEvent> lowest(std::span<const PathPlace> path);

/// Longest run of frames on which the speed is under `part` of the largest; nothing when there is none.
std::optional<std::pair<std::int64_t, std::int64_t>> longestStall(std::span<const FrameValue> speeds,
                                                                  double part = 0.15);

/// The part of a path from `first` to `last`, both included.
std::span<const PathPlace> between(std::span<const PathPlace> path, std::int64_t first, std::int64_t last);

} // namespace jg
