// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/narration.h"

#include "letter/veils.h"
#include "review/record/joints.h"
#include "review/tell/take_cuts.h"
#include "voice/audio_file.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

namespace {

constexpr double kRoomAbout = 0.35; ///< of the joints' height, looked at about them
constexpr double kSnapView = 14;    ///< view pixels

} // namespace

Narration::Narration(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker)
    : c_(context)
    , recorder_(context.session.library(), microphone)
    , loudspeaker_(loudspeaker) {
    timer_.setInterval(20);
    connect(&timer_, &QTimer::timeout, this, &Narration::followSound);
    connect(&recorder_, &Recorder::brokenOff, this, &Narration::brokenOff);
    connect(&recorder_, &Recorder::heard, this, [this] {
        if (!state_.drawn.empty()) follow(); // some of it may fade
        Q_EMIT heard();
    });
    connect(&context.stage, &StageView::looked, this, &Narration::noteLook);
}

Status Narration::record(const Stop& stop, const std::optional<TakeHead>& head) {
    stopListening();
    if (const Status may = c_.session.library().mayWrite(); !may) return may;
    stop_ = stop;
    state_ = {};
    const Status started = recorder_.start(c_.session.review().id, stop, c_.session.clock().nowUnix(), head);
    if (!started) return started;
    if (!head && c_.stage.seen()) noteLook();
    follow();
    if (!head) return started;
    lookAt(state_.part);
    c_.playhead.jump(state_.frame);
    return started;
}

void Narration::lookAt(const std::optional<PictureBox>& part) {
    c_.stage.look(part ? std::optional(rectOf(*part)) : std::nullopt);
}

Result<std::optional<Take>> Narration::finish() {
    auto take = recorder_.finish();
    show({});
    return take;
}

Status Narration::listen(const Stop& stop, const Take& take) {
    if (const auto problem = loudspeaker_.problem()) return fail(ErrorCode::Refused, *problem);
    auto sound = readSound(c_.session.library().takePath(take.file));
    if (!sound) return sound.error();
    c_.playhead.pause();
    stop_ = stop;
    heard_ = take;
    loudspeaker_.play(std::make_shared<const std::vector<float>>(heardOf(take, *sound)), 0);
    timer_.start();
    return Done{};
}

void Narration::stopListening() {
    if (!listening()) return;
    timer_.stop();
    loudspeaker_.stop();
    show({});
    c_.stage.look(std::nullopt);
    Q_EMIT listened();
}

std::optional<std::int64_t> Narration::heardAt() const {
    const auto at = listening() ? loudspeaker_.position() : std::nullopt;
    if (!at) return std::nullopt;
    return inFile(heard_, static_cast<std::int64_t>(*at * kSampleRate));
}

void Narration::followSound() {
    const auto at = heardAt();
    if (!at) return stopListening();
    StageState now = replay_.at(stop_, heard_, *at, c_.session.delivery());
    if (now.part != state_.part) lookAt(now.part);
    c_.playhead.jump(now.frame);
    show(std::move(now));
}

void Narration::show(StageState state) {
    const bool otherMarks = state.marks != state_.marks || state.goal != state_.goal;
    state_ = std::move(state);
    if (otherMarks) c_.redraw();
    c_.stage.update();
}

/// What is drawn, as the film will show it now.
void Narration::follow() {
    show(replay_.at(stop_, recorder_.soFar(), recorder_.samples(), c_.session.delivery()));
}

void Narration::note(const TakeEvent& event) {
    if (!recording()) return;
    recorder_.note(event);
    follow();
}

void Narration::noteLook() {
    TakeEvent e{.kind = TakeEventKind::View};
    if (const auto part = c_.stage.seen()) {
        e.at = {part->left(), part->top()};
        e.to = {part->right(), part->bottom()};
    }
    note(e);
}

void Narration::frameChanged() {
    note({.kind = TakeEventKind::Frame, .frame = c_.playhead.frame()});
}

void Narration::choosePen(Pen pen) {
    pen_ = pen;
    Q_EMIT toolsChanged();
}

void Narration::toggleFades() {
    fades_ = !fades_;
    Q_EMIT toolsChanged();
}

void Narration::toggleMarks() {
    if (recording()) return note({.kind = state_.marks ? TakeEventKind::MarksOff : TakeEventKind::MarksOn});
    StageState other = state_;
    other.marks = !other.marks;
    show(std::move(other));
}

void Narration::toggleGoal() {
    if (recording()) return note({.kind = state_.goal ? TakeEventKind::GoalOff : TakeEventKind::GoalOn});
    StageState other = state_;
    other.goal = !other.goal;
    show(std::move(other));
}

void Narration::dropLast() {
    note({.kind = TakeEventKind::StrokeDrop});
}

void Narration::clear() {
    note({.kind = TakeEventKind::StrokesClear});
}

void Narration::closer() {
    if (c_.stage.seen()) return c_.stage.look(std::nullopt);
    QRectF joints;
    for (const auto& [landmark, at] : jointsOn(c_.session.delivery(), c_.playhead.frame()))
        joints |= QRectF(at.x - 0.5, at.y - 0.5, 1, 1);
    if (joints.isNull()) return c_.say(say("narration.no-joints-here"));
    const double room = kRoomAbout * joints.height();
    c_.stage.look(joints.adjusted(-room, -room, room, room));
}

std::optional<std::pair<Landmark, ImagePoint>> Narration::jointNear(ImagePoint at) const {
    if (pen_ == Pen::Free) return std::nullopt;
    std::optional<std::pair<Landmark, ImagePoint>> nearest;
    double best = reach_ * kSnapView / 10;
    for (const auto& joint : jointsOn(c_.session.delivery(), c_.playhead.frame())) {
        const ImagePoint off = joint.second - at;
        if (const double far = std::hypot(off.x, off.y); far < best) best = far, nearest = joint;
    }
    return nearest;
}

TakeEvent Narration::strokeAt(TakeEventKind kind, ImagePoint at) const {
    const auto joint = jointNear(at);
    return joint ? TakeEvent{.kind = kind, .at = joint->second, .joint = joint->first}
                 : TakeEvent{.kind = kind, .at = at};
}

bool Narration::press(ImagePoint at, double reach) {
    if (!recording()) return false;
    reach_ = reach;
    TakeEvent e = strokeAt(TakeEventKind::StrokeBegin, at);
    e.pen = pen_;
    e.fades = fades_;
    note(e);
    return true;
}

void Narration::drag(ImagePoint at) {
    pointer_ = at;
    note(strokeAt(TakeEventKind::StrokeTo, at));
}

void Narration::hover(ImagePoint at) {
    pointer_ = at;
    note({.kind = TakeEventKind::Pointer, .at = at});
}

void Narration::paintOver(QPainter& p, const ViewTransform& view) {
    for (const Drawn& drawn : state_.drawn) paintDrawn(p, drawn, view);
    if (!recording() || !pointer_) return;
    reach_ = 10 / view.scale;
    const auto joint = jointNear(*pointer_);
    if (!joint) return;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(palette::clay, 2));
    p.drawEllipse(view.toView(joint->second), kSnapView, kSnapView);
}

} // namespace jg::ui
