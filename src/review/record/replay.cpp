// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/replay.h"

#include <algorithm>

namespace jg {

ImagePoint TakeReplay::placeOf(const TakeEvent& e, const DeliveryMarks& marks) const {
    const PointMark* joint = e.joint ? marks.seenPoint(state_.frame, *e.joint) : nullptr;
    return joint ? joint->point.at : e.at;
}

void TakeReplay::drawTo(const TakeEvent& e, const DeliveryMarks& marks) {
    if (state_.drawn.empty()) return;
    Drawn& last = state_.drawn.back();
    if (last.pen != Pen::Free && last.points.size() > 1) last.points.pop_back();
    last.points.push_back(placeOf(e, marks));
    if (fading_.back()) fading_.back() = e.sample;
}

void TakeReplay::play(const TakeEvent& e, const DeliveryMarks& marks) {
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
        state_.drawn.push_back({e.pen, {placeOf(e, marks)}});
        fading_.push_back(e.fades ? std::optional(e.sample) : std::nullopt);
        break;
    case TakeEventKind::StrokeTo:
        drawTo(e, marks);
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

StageState TakeReplay::stateNow(std::int64_t sample, int rate) const {
    StageState now = state_;
    for (std::size_t i = 0; i < fading_.size(); ++i) {
        if (!fading_[i]) continue;
        const double since = static_cast<double>(sample - *fading_[i]) / rate;
        now.drawn[i].clear = std::clamp(1 - (since - kFadeAfterS) / kFadeS, 0.0, 1.0);
    }
    std::erase_if(now.drawn, [](const Drawn& d) { return d.clear <= 0; });
    return now;
}

bool TakeReplay::goesOn(const Stop& stop, const Take& take, std::int64_t sample,
                        const DeliveryMarks& marks) const {
    if (sample < sample_ || take.file != file_ || stop.id != stop_ || take.events.size() < played_)
        return false;
    if (played_ > 0 && take.events[played_ - 1] != last_) return false;
    return marks.points == points_;
}

StageState TakeReplay::at(const Stop& stop, const Take& take, std::int64_t sample,
                          const DeliveryMarks& marks) {
    if (!goesOn(stop, take, sample, marks)) {
        *this = TakeReplay();
        file_ = take.file;
        stop_ = stop.id;
        points_ = marks.points;
        state_.frame = stop.frame;
    }
    sample_ = sample;
    while (played_ < take.events.size() && take.events[played_].sample <= sample) {
        last_ = take.events[played_++];
        play(*last_, marks);
    }
    return stateNow(sample, take.sampleRate);
}

StageState stateAt(const Stop& stop, const Take& take, std::int64_t sample, const DeliveryMarks& marks) {
    return TakeReplay().at(stop, take, sample, marks);
}

} // namespace jg
