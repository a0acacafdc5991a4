// SPDX-License-Identifier: GPL-3.0-or-later
// The landmarks of a foot, which stand and go together.
#pragma once

#include "kinematics/anatomy.h"

#include <array>

namespace jg {

inline constexpr std::array kLeadFoot = {Landmark::LeadAnkle, Landmark::LeadHeel, Landmark::LeadToe};
inline constexpr std::array kBackFoot = {Landmark::BackAnkle, Landmark::BackHeel, Landmark::BackToe};

} // namespace jg
