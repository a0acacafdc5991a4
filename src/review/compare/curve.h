// SPDX-License-Identifier: GPL-3.0-or-later
// One feature of a delivery over time: where it is clicked or followed, with its error.
#pragma once

#include "review/assess/feature.h"
#include "review/compare/juxta_entry.h"

#include <optional>
#include <vector>

namespace jg {

struct CurvePoint {
    std::int64_t frame = 0;
    double ms = 0; ///< real, from first touch
    double value = 0;
    double half95 = 0;
    bool clicked = false; ///< every joint of it; else some is followed
};

/// The moment that matters on a curve: a knee or the elbow at its most bent (the front knee after first
/// touch), the hand's highest, the ball's farthest, hip, head and trunk halfway on their way.
struct CurveEvent {
    double ms = 0;
    double half95 = 0; ///< half a frame either side, and as long as the curve stays within its error
};

struct FeatureCurve {
    std::vector<CurvePoint> points; ///< by time
    std::optional<CurveEvent> event;
    Message noEvent; ///< why its moment can't be told, and what to do; empty with one
    Message why;     ///< when there are no points: what to do
};

/// In the picture's plane, the camera's shake taken out; angles and ways seen from the front are those of the
/// picture. Pure.
FeatureCurve featureCurve(const JuxtaEntry& entry, Feature feature);

/// The point at the curve's moment; null when that can't be told. Pure.
const CurvePoint* pointAtEvent(const FeatureCurve& curve);

/// Which of two came first: "12 ms +- 5 earlier", or too slow to tell. Pure.
Message whichFirst(const CurveEvent& one, const CurveEvent& other);

/// The moment of a feature, when it came.
struct FeatureMoment {
    Feature feature;
    CurveEvent event;
};
/// Which of two features' moments came first, by name, or too close to tell. Pure.
Message orderOf(const FeatureMoment& one, const FeatureMoment& other);

} // namespace jg
