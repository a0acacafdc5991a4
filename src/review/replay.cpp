#include "review/replay.h"

namespace jg {

StageState stateAt(const Stop& stop, const Take& take, std::int64_t sample) {
    StageState state;
    state.frame = stop.frame;
    for (const TakeEvent& e : take.events) {
        if (e.sample > sample) break;
        switch (e.kind) {
        case TakeEventKind::Frame:
            state.frame = e.frame;
            break;
        case TakeEventKind::Pointer:
            state.pointer = e.at;
            break;
        case TakeEventKind::PointerOff:
            state.pointer.reset();
            break;
        case TakeEventKind::StrokeBegin:
            state.strokes.push_back({e.at});
            break;
        case TakeEventKind::StrokeTo:
            if (!state.strokes.empty()) state.strokes.back().push_back(e.at);
            break;
        case TakeEventKind::StrokesClear:
            state.strokes.clear();
            break;
        case TakeEventKind::MarksOn:
            state.marks = true;
            break;
        case TakeEventKind::MarksOff:
            state.marks = false;
            break;
        }
    }
    return state;
}

} // namespace jg
