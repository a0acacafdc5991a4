// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/goal_by_hand.h"

#include "kinematics/geometry.h"
#include "kinematics/pull.h"
#include "letter/palette.h"
#include "review/record/joints.h"

#include <QPainter>

#include <algorithm>
#include <iterator>

namespace jg::ui {

bool GoalByHand::begin(const MeasureDefinition& m) {
    const auto frame = m.hasPoints() ? delivery().frameOf(m.slots.back()) : std::nullopt;
    const JointPlaces clicked = frame ? jointsOn(delivery(), *frame) : JointPlaces{};
    if (clicked.size() < 2) {
        c_.say(say("goal-by-hand.nothing-to-drag"));
        return false;
    }
    measure_ = m.id;
    frame_ = *frame;
    start_ = clicked;
    if (const MeasureRow* row = c_.session.assessment().measure(m.id))
        if (const auto ghost = ghostOf(delivery(), c_.session.playbook(), *row, c_.session.clip(),
                                       c_.session.athlete().hand))
            start_ = ghost->pose;
    GhostTask task;
    setContacts(task, m.slots.back().at);
    standing_ = task.standing;
    joint_.reset();
    c_.playhead.step(frame_ - c_.playhead.frame());
    c_.say(say("goal-by-hand.drag"));
    c_.showHints();
    c_.redraw();
    return true;
}

void GoalByHand::end() {
    measure_.reset();
    dragging_ = false;
    c_.say({});
    c_.showHints();
    c_.redraw();
}

void GoalByHand::remove() {
    const std::string id = *measure_;
    if (delivery().goals.contains(id)) perform_(msg("goal-by-hand.take-away"), {SetGoal{id, std::nullopt}});
    end();
}

JointPlaces GoalByHand::pose() const {
    const auto kept = delivery().goals.find(*measure_);
    return kept != delivery().goals.end() && kept->second.frame == frame_ ? kept->second.joints : start_;
}

bool GoalByHand::pull(Landmark joint, ImagePoint to) {
    const Clip& clip = c_.session.clip();
    to = {std::clamp(to.x, 0.0, static_cast<double>(clip.width)),
          std::clamp(to.y, 0.0, static_cast<double>(clip.height))};
    JointPlaces body = jointsOn(delivery(), frame_), now = pose();
    // A joint that was clicked or taken away since the goal was begun is taken as it is now.
    std::erase_if(now, [&](const auto& entry) { return !body.contains(entry.first); });
    for (const auto& [landmark, at] : body) now.try_emplace(landmark, at);
    return perform_(msg("goal-by-hand.set"),
                    {SetGoal{*measure_, HandGoal{frame_, pulled(body, now, standing_, joint, to)}}});
}

bool GoalByHand::press(ImagePoint at, double reach) {
    if (c_.stage.shownFrame() != frame_) {
        c_.say(say("goal-by-hand.other-frame", {{"frame", frame_}}));
        return true;
    }
    double nearest = reach;
    joint_.reset();
    for (const auto& [joint, place] : pose())
        if (const double d = length(place - at); d < nearest)
            nearest = d, joint_ = joint, grabOffset_ = place - at;
    dragging_ = joint_.has_value();
    if (dragging_)
        c_.session.beginGesture();
    else
        c_.say(say("goal-by-hand.drag"));
    c_.stage.update();
    return true;
}

void GoalByHand::drag(ImagePoint at) {
    if (dragging_) pull(*joint_, at + grabOffset_);
}

void GoalByHand::release() {
    if (!dragging_) return;
    dragging_ = false;
    c_.session.endGesture();
}

void GoalByHand::nextJoint() {
    const JointPlaces all = pose();
    const auto at = joint_ ? all.upper_bound(*joint_) : all.begin();
    joint_ = at == all.end() ? all.begin()->first : at->first;
    c_.say(say("goal-by-hand.joint", {{"joint", info(*joint_).name()}}));
    c_.stage.update();
}

void GoalByHand::nudge(double dx, double dy) {
    if (!joint_) nextJoint();
    const ImagePoint at = pose().at(*joint_);
    pull(*joint_, {at.x + dx, at.y + dy});
}

void GoalByHand::paint(QPainter& p, const ViewTransform& view) const {
    if (c_.stage.shownFrame() != frame_) return;
    const JointPlaces now = pose();
    const auto lines = [&](const QPen& pen) {
        p.setPen(pen);
        for (const auto& [a, b] : limbsOf(now)) p.drawLine(view.toView(now.at(a)), view.toView(now.at(b)));
    };
    p.setBrush(Qt::NoBrush);
    lines(QPen(palette::casing, 3.4));
    lines(QPen(palette::ghost, 1.6, Qt::DashLine));
    for (const auto& [joint, at] : now) {
        p.setPen(QPen(palette::ghost, 2));
        p.setBrush(joint_ == joint ? palette::ghost : palette::casing);
        p.drawEllipse(view.toView(at), 6, 6);
    }
}

KeyHints GoalByHand::hints() const {
    return {{say("hint.drag"), say("goal-by-hand.hint-joint")},
            {"C", say("goal-by-hand.hint-next"), "point-cursor"},
            {"Del", say("goal-by-hand.hint-reckoned"), "point-delete"},
            {"Z", say("hint.undo"), "undo"},
            {"Esc", say("goal-by-hand.hint-done"), "tool-none"}};
}

} // namespace jg::ui
