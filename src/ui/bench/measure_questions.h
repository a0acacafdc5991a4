// SPDX-License-Identifier: GPL-3.0-or-later
// What measuring asks of the coach beside points: a frame, a choice, a number, the camera's turn, a scale.
#pragma once

#include "kinematics/rubber_turn.h"
#include "ui/bench/bench.h"
#include "ui/film/drawing.h"

namespace jg::ui {

/// Frames beside the key positions that the measure needs and that are not set yet.
std::vector<Moment> openMoments(const MeasureDefinition& measure, const DeliveryMarks& delivery);

/// Asks which of a seen measure's answers was seen, and performs it.
void askSeen(QWidget* parent, const MeasureDefinition& measure, const PerformEdit& perform);

/// Asks in small dialogs over `parent` and performs what is answered. Lives beside its bench.
class MeasureQuestions {
public:
    MeasureQuestions(QWidget* parent, ReviewContext& context, PerformEdit perform)
        : parent_(parent)
        , c_(context)
        , perform_(std::move(perform)) {}

    /// The measure's own question: a further frame, a choice, a number. It goes to the frame first where it
    /// is judged; a further frame is set by the second call only.
    void answer(const MeasureDefinition& m);
    /// What was opened is not set any more when the coach comes back to it.
    void left() { opened_.reset(); }
    /// The frame it asks for beside the key positions happened again where the film stands, or no longer.
    void again(const MeasureDefinition& m);
    using Draw = std::function<void(Drawing)>;
    /// How far the camera was turned: in degrees, or by `draw` from the rubber or from two equal heights.
    void cameraTurn(const Draw& draw);
    /// Which scale; `draw` is called when its two ends are to be clicked.
    void scale(const Draw& draw);

private:
    /// Goes to where the moment is, if it is set, and says what the next press sets.
    void openMoment(Moment moment);
    void setExtraMoment(Moment moment);
    void askNumber(const MeasureDefinition& m, const std::string& name);
    void sayLengthsIn(LengthUnit unit);
    void askLength(ScaleKind kind, const Draw& draw);
    Drawing scaleDrawing(ScaleKind kind, double metres);
    Drawing rubberDrawing(RubberSize size);
    void findByHeights(const Draw& draw);
    /// Keeps a turn that was found, or says `otherwise` when it is none.
    void takeTurn(Estimate turn, const QString& by, const QString& otherwise);
    const DeliveryMarks& delivery() const { return c_.session.delivery(); }

    QWidget* parent_;
    ReviewContext& c_;
    PerformEdit perform_;
    std::optional<Moment> opened_; ///< the moment that the next answer sets on the frame shown
};

} // namespace jg::ui
