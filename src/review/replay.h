// A take played back: what the stage shows at a moment of the sound.
#pragma once

#include "review/review.h"

#include <optional>
#include <vector>

namespace jg {

/// The stage while a stop is being said.
struct StageState {
    std::int64_t frame = 0;
    std::optional<ImagePoint> pointer;
    std::vector<std::vector<ImagePoint>> strokes;
    bool marks = true;
};

/// The state after all events up to and including `sample`, starting from the stop's own frame. Pure.
StageState stateAt(const Stop& stop, const Take& take, std::int64_t sample);

} // namespace jg
