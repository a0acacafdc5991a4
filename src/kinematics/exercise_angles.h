// SPDX-License-Identifier: GPL-3.0-or-later
// What the click exercise asks for: three joints that make an angle, at a moment.
#pragma once

#include "kinematics/anatomy.h"

#include <array>
#include <cstddef>

namespace jg {

/// End, vertex, end.
struct ExerciseAngle {
    Moment at;
    std::array<Landmark, 3> joints;
};

inline constexpr std::array<ExerciseAngle, 3> kExerciseAngles = {
    {{Moment::Load, {Landmark::BackHip, Landmark::BackKnee, Landmark::BackAnkle}},
     {Moment::Plant, {Landmark::LeadHip, Landmark::LeadKnee, Landmark::LeadAnkle}},
     {Moment::Plant, {Landmark::BackShoulder, Landmark::BackElbow, Landmark::BackWrist}}}};

/// That of the n-th picture.
constexpr const ExerciseAngle& exerciseAngle(std::size_t n) {
    return kExerciseAngles[n % kExerciseAngles.size()];
}

} // namespace jg
