// SPDX-License-Identifier: GPL-3.0-or-later
// The goal of a measure set by hand: its joints are dragged to where they should be.
#pragma once

#include "review/assess/ghost.h"
#include "ui/bench/bench.h"

#include <optional>
#include <string>

namespace jg::ui {

/// Lives in its bench; every drag is one step of the history.
class GoalByHand {
public:
    GoalByHand(ReviewContext& context, PerformEdit perform)
        : c_(context)
        , perform_(std::move(perform)) {}

    /// Starts from the goal that is drawn on the frame of the measure's last position, else from the joints
    /// clicked there. False, with a sentence in the foot, where there is nothing to drag.
    bool begin(const MeasureDefinition& measure);
    bool active() const { return measure_.has_value(); }
    void end();
    /// The reckoned goal stands again.
    void remove();

    /// True when the press was for the goal.
    bool press(ImagePoint at, double reach);
    void drag(ImagePoint at);
    void release();
    /// The next joint is the one that keys move.
    void nextJoint();
    void nudge(double dx, double dy);

    void paint(QPainter& p, const ViewTransform& view) const;
    KeyHints hints() const;

private:
    const DeliveryMarks& delivery() const { return c_.session.delivery(); }
    /// The pose as it stands now: the kept goal, else what it starts from.
    JointPlaces pose() const;
    bool pull(Landmark joint, ImagePoint to);

    ReviewContext& c_;
    PerformEdit perform_;
    std::optional<std::string> measure_;
    std::int64_t frame_ = 0;
    JointPlaces start_;
    std::set<Landmark> standing_;
    std::optional<Landmark> joint_; ///< chosen
    bool dragging_ = false;
    ImagePoint grabOffset_;
};

} // namespace jg::ui
