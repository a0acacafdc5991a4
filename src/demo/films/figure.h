// SPDX-License-Identifier: GPL-3.0-or-later
// The figure as shaded solids.
#pragma once

#include "demo/films/delivery.h"
#include "demo/films/vec3f.h"

#include <array>
#include <vector>

namespace jg {

/// What a solid is made of.
struct Cloth {
    float r = 1, g = 1, b = 1;
    float shine = 0; ///< 0 dull .. 1 polished
};

/// A cone with round ends; optionally only the part above a plane through `clipAt`.
struct RoundCone {
    Vec3f a, b;
    float ra = 0, rb = 0;
    Cloth cloth;
    bool clipped = false;
    Vec3f clipAt, clipUp;
};

/// How the athlete is dressed.
struct Outfit {
    Cloth cap{0.52f, 0.16f, 0.12f, 0.05f};
    Cloth jersey{0.70f, 0.76f, 0.75f, 0};
    Cloth pants{0.83f, 0.81f, 0.75f, 0};
    Cloth skin{0.74f, 0.52f, 0.39f, 0.08f};
};

/// The solids of a pose, in metres.
std::vector<RoundCone> solidsOf(const Pose& pose, double heightM, const Outfit& outfit);

} // namespace jg
