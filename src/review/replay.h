// A take played back: what the stage shows at a moment of the sound.
#pragma once

#include "review/review.h"

#include <optional>
#include <vector>

namespace jg {

/// Something drawn while talking.
struct Drawn {
    Pen pen = Pen::Free;
    std::vector<ImagePoint> points; ///< of all pens but Free one or two
    double clear = 1;               ///< how much of it is left: 1 all, 0 gone
};

/// The stage while a stop is being said.
struct StageState {
    std::int64_t frame = 0;
    std::optional<ImagePoint> pointer;
    std::vector<Drawn> drawn;
    bool marks = true;
    bool goal = true;               ///< its ghost is among the marks
    std::optional<PictureBox> part; ///< of the picture that is looked at; nothing = all
};

/// What fades stays so long, and then takes so long to go: own choice.
inline constexpr double kFadeAfterS = 3, kFadeS = 0.8;

/// The state after all events up to and including `sample` of the take's file, from the stop's own frame on.
/// What was drawn at a joint stands where the joint is clicked now. Pure.
StageState stateAt(const Stop& stop, const Take& take, std::int64_t sample, const DeliveryMarks& marks);

} // namespace jg
