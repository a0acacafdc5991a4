// Paths of followed landmarks in a review, and the moments they tell of.
#pragma once

#include "review/people.h"
#include "review/review.h"

#include <map>
#include <vector>

namespace jg {

/// A landmark clicked on two frames with none clicked between: what is followed at once.
struct PathStretch {
    Landmark landmark;
    PathPlace from, to;
};

/// Every stretch of landmarks that move with the body, by landmark and frame. A hidden point ends one.
std::vector<PathStretch> stretchesToFollow(const Review& review);

/// The path of a landmark; empty when it was never followed, or when a point it was followed from was moved
/// or taken away since.
Path pathOf(const Review& review, Landmark landmark);

/// Landmarks whose path is there and holds.
std::vector<Landmark> followedLandmarks(const Review& review);

/// Moments beside the key positions that the paths tell of, each with its give and take. Only ever a
/// suggestion. Own choice of limits: kinematics/path.h.
std::map<Moment, PathEvent> momentsFromPaths(const Review& review, const Clip& clip, Hand hand);

} // namespace jg
