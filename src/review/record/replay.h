// SPDX-License-Identifier: GPL-3.0-or-later
// A take played back: what the stage shows at a moment of the sound.
#pragma once

#include "review/record/review.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
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

/// The same for one moment after another: each event is played once, as long as the moments rise and the take
/// only grows. Value type.
class TakeReplay {
public:
    StageState at(const Stop& stop, const Take& take, std::int64_t sample, const DeliveryMarks& marks);

private:
    bool goesOn(const Stop& stop, const Take& take, std::int64_t sample, const DeliveryMarks& marks) const;
    void play(const TakeEvent& event, const DeliveryMarks& marks);
    void drawTo(const TakeEvent& event, const DeliveryMarks& marks);
    ImagePoint placeOf(const TakeEvent& event, const DeliveryMarks& marks) const;
    StageState stateNow(std::int64_t sample, int rate) const;

    std::string file_; ///< of the take that is played
    StopId stop_;
    std::map<PointKey, PointMark> points_; ///< joints as they were when strokes were put on them
    std::size_t played_ = 0;
    std::optional<TakeEvent> last_; ///< of those played
    std::int64_t sample_ = -1;
    StageState state_;                                ///< what has faded is still in it
    std::vector<std::optional<std::int64_t>> fading_; ///< beside `drawn`: since when, of those that fade
};

} // namespace jg
