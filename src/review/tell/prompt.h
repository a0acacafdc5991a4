// SPDX-License-Identifier: GPL-3.0-or-later
// What a coach may say at a stop: the same words stand beside the stage, under the film and in its captions.
#pragma once

#include "review/assess/assess.h"
#include "review/record/audience.h"
#include "review/record/read_by.h"

#include <vector>

namespace jg {

/// The words for one stop; what is not known is empty.
struct Prompt {
    Message what;   ///< the correction by what to do, the strength by its name
    Message number; ///< the number and the target in plain words; of the recap what is worked on
    Message change; ///< from the delivery beside it; filled by who knows that one
    Message why;
    Message feel; ///< the cue for this reader
    Message next; ///< what the stop after it is about

    /// What the player hears, in order: number, change, why, feel.
    std::vector<Message> sentences() const;
    bool operator==(const Prompt&) const = default;
};

/// Pure.
Prompt promptFor(const Review& review, const Playbook& playbook, const Assessment& a, const Stop& stop,
                 const ReadBy& by);

/// A review that is said is to take between these many seconds: common practice, no source.
struct SayingLength {
    int leastS = 180, mostS = 300;
    bool operator==(const SayingLength&) const = default;
};

} // namespace jg
