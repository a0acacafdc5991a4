// SPDX-License-Identifier: GPL-3.0-or-later
// What a killed program left of a take: its sound, up to the last second.
#pragma once

#include "library/library.h"
#include "review/record/review.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A take that was being recorded when the program ended.
struct UnfinishedTake {
    std::string file; ///< of the take it would have become
    StopId stop;
    std::int64_t samples = 0;
    std::int64_t endedUnix = 0; ///< when the last of it was written
    double seconds() const;
};

/// Those of a review's stops, the newest first. One that was written to in the last seconds may still be
/// recorded by another window and is left out. Reads the takes folder; any thread.
std::vector<UnfinishedTake> unfinishedTakes(const Library& library, const Review& review,
                                            std::int64_t nowUnix);

/// Makes it a take of its stop: the sound, and the stop's frame all along; what was pointed at is lost.
/// Errors: WriteFailed, Damaged when it holds no sound.
Result<Take> keepUnfinished(Library& library, const UnfinishedTake& unfinished, const Stop& stop);

/// Throws it away. Errors: WriteFailed.
Status dropUnfinished(Library& library, const UnfinishedTake& unfinished);

} // namespace jg
