// SPDX-License-Identifier: GPL-3.0-or-later
// Body proportions of the demo figure, as fractions of standing height.
#pragma once

namespace jg::body {

// Drillis and Contini 1966, as tabulated in Winter's Biomechanics and Motor Control of Human Movement; from
// memory.
inline constexpr double kThigh = 0.245;
inline constexpr double kShank = 0.246;
inline constexpr double kAnkleHeight = 0.039;
inline constexpr double kFoot = 0.152;
inline constexpr double kHalfHips = 0.0955;
inline constexpr double kHalfShoulders = 0.129;
inline constexpr double kUpperArm = 0.186;
inline constexpr double kForearm = 0.146;
inline constexpr double kTrunk = 0.288;
inline constexpr double kNeck = 0.052;
inline constexpr double kHeadRadius = 0.062;
inline constexpr double kHand = 0.055;

} // namespace jg::body
