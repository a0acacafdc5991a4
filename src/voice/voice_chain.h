// SPDX-License-Identifier: GPL-3.0-or-later
// From a raw take to an even, clear voice.
#pragma once

#include "base/result.h"

#include <span>
#include <vector>

namespace jg {

/// Loudness aimed at in the film, LUFS (EBU R 128 method; -16 is common for speech, own choice).
inline constexpr double kVoiceLufs = -16.0;

/// High-pass, the room's noise turned down, compression, gain to kVoiceLufs and a true-peak limit of about
/// -1.5 dB. Same length as the input, mono at kSampleRate. Silence comes back as it is. Errors: Internal.
Result<std::vector<float>> polishVoice(std::span<const float> raw);

/// Integrated loudness, LUFS; -HUGE_VAL for silence. Source: EBU R 128 through libebur128.
double loudnessOf(std::span<const float> samples);

} // namespace jg
