#include "review/replay.h"

#include <algorithm>

namespace jg {

namespace {

class Replay {
public:
    Replay(const Stop& stop, const DeliveryMarks& marks)
        : marks_(marks) {
        state_.frame = stop.frame;
    }

    void play(const TakeEvent& e) {
        switch (e.kind) {
        case TakeEventKind::Frame:
            state_.frame = e.frame;
            break;
        case TakeEventKind::Pointer:
            state_.pointer = e.at;
            break;
        case TakeEventKind::PointerOff:
            state_.pointer.reset();
            break;
        case TakeEventKind::StrokeBegin:
            state_.drawn.push_back({e.pen, {placeOf(e)}});
            fading_.push_back(e.fades ? std::optional(e.sample) : std::nullopt);
            break;
        case TakeEventKind::StrokeTo:
            drawTo(e);
            break;
        case TakeEventKind::StrokeDrop:
            if (state_.drawn.empty()) break;
            state_.drawn.pop_back();
            fading_.pop_back();
            break;
        case TakeEventKind::StrokesClear:
            state_.drawn.clear();
            fading_.clear();
            break;
        case TakeEventKind::MarksOn:
        case TakeEventKind::MarksOff:
            state_.marks = e.kind == TakeEventKind::MarksOn;
            break;
        case TakeEventKind::GoalOn:
        case TakeEventKind::GoalOff:
            state_.goal = e.kind == TakeEventKind::GoalOn;
            break;
        case TakeEventKind::View:
            state_.part = e.at == e.to ? std::nullopt : std::optional(PictureBox{e.at, e.to});
            break;
        }
    }

    StageState at(std::int64_t sample, int rate) {
        for (std::size_t i = 0; i < fading_.size(); ++i) {
            if (!fading_[i]) continue;
            const double since = static_cast<double>(sample - *fading_[i]) / rate;
            state_.drawn[i].clear = std::clamp(1 - (since - kFadeAfterS) / kFadeS, 0.0, 1.0);
        }
        std::erase_if(state_.drawn, [](const Drawn& d) { return d.clear <= 0; });
        return std::move(state_);
    }

private:
    ImagePoint placeOf(const TakeEvent& e) const {
        const PointMark* joint = e.joint ? marks_.seenPoint(state_.frame, *e.joint) : nullptr;
        return joint ? joint->point.at : e.at;
    }

    void drawTo(const TakeEvent& e) {
        if (state_.drawn.empty()) return;
        Drawn& last = state_.drawn.back();
        if (last.pen != Pen::Free && last.points.size() > 1) last.points.pop_back();
        last.points.push_back(placeOf(e));
        if (fading_.back()) fading_.back() = e.sample;
    }

    const DeliveryMarks& marks_;
    StageState state_;
    std::vector<std::optional<std::int64_t>> fading_; ///< beside `drawn`: since when, of those that fade
};

} // namespace

StageState stateAt(const Stop& stop, const Take& take, std::int64_t sample, const DeliveryMarks& marks) {
    Replay replay(stop, marks);
    for (const TakeEvent& e : take.events) {
        if (e.sample > sample) break;
        replay.play(e);
    }
    return replay.at(sample, take.sampleRate);
}

} // namespace jg
