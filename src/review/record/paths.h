// SPDX-License-Identifier: GPL-3.0-or-later
// Paths of followed landmarks in a review, and the moments they tell of.
#pragma once

#include "review/record/people.h"
#include "review/record/review.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// A landmark clicked on two frames with none clicked between: what is followed at once.
struct PathStretch {
    Landmark landmark;
    PathPlace from, to;
};

/// Every stretch of landmarks that move with the body, by landmark and frame. A hidden point ends one.
std::vector<PathStretch> stretchesToFollow(const DeliveryMarks& delivery);

/// The path of a landmark; empty when it was never followed, or when a point it was followed from was moved
/// or taken away since.
Path pathOf(const DeliveryMarks& delivery, Landmark landmark);

/// The part of a path between two moments, without the camera's shake; empty without either moment, or
/// without the path there.
Path partOf(const DeliveryMarks& delivery, Landmark landmark, Moment from, Moment to);

/// Landmarks whose path is there and holds.
std::vector<Landmark> followedLandmarks(const DeliveryMarks& delivery);

/// Moments that the paths tell of, each with its give and take: when things begin to move or turn, where hand
/// and elbow are highest or lowest, and when the forearm is furthest back and within ten degrees of it. Only
/// ever a suggestion. Own choice of limits: kinematics/path.h.
std::map<Moment, PathEvent> momentsFromPaths(const DeliveryMarks& delivery, const Clip& clip, Hand hand);

/// What a path says of a measure that the coach sees: one of the measure's options, and why.
struct PathSaying {
    std::string option;
    Message why;
};

/// Whether the throwing hand stalls on its way to layback ("hand-stall") and whether the elbow stops before
/// release ("elbow-stop"). Nothing for other measures or without the path. Only ever a suggestion; limits are
/// our own choice. Pure.
std::optional<PathSaying> sayingFromPaths(const DeliveryMarks& delivery, const Clip& clip,
                                          std::string_view measure);

} // namespace jg
