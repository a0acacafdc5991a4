// SPDX-License-Identifier: GPL-3.0-or-later
// Where somebody speaks in a sound.
#pragma once

#include "base/sample_span.h"

#include <span>
#include <vector>

namespace jg {

/// The stretches in which a voice is heard, rising and apart by at least a third of a second, in samples at
/// kSampleRate. Told by loudness above 80 Hz: a tenth of a second before and two after a word belong to it,
/// so that soft ends stay. All of it where voice and room can't be told apart; nothing of silence. Own choice
/// of limits. Pure; any thread.
std::vector<SampleSpan> speechIn(std::span<const float> samples);

} // namespace jg
