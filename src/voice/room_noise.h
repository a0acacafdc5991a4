// SPDX-License-Identifier: GPL-3.0-or-later
// The room's own noise turned down under a voice.
#pragma once

#include <span>
#include <vector>

namespace jg {

/// What the room's steady noise is turned down by at most, dB: gentle, so that the voice stays as it is. Own
/// choice.
inline constexpr int kRoomDownDb = 12;

/// The sound with steady noise (a fan, a heater, hiss) turned down; of the same length and in time with it.
/// It is heard twice: once to learn the room. Mono at kSampleRate. Pure; any thread. Source: the preprocessor
/// of SpeexDSP (after Ephraim and Malah 1984, as its manual says, from memory).
std::vector<float> withoutRoomNoise(std::span<const float> samples);

} // namespace jg
