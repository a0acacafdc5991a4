// SPDX-License-Identifier: GPL-3.0-or-later
// Measure: the guided points, the free marks, and every number with its error.
#pragma once

#include "review/assess/guide.h"
#include "ui/bench/bench.h"
#include "ui/bench/measure_questions.h"
#include "ui/bench/path_tools.h"
#include "ui/film/drawing.h"
#include "ui/film/grips.h"
#include "ui/kit/row_list.h"
#include "ui/stages/measure/goal_by_hand.h"
#include "ui/stages/measure/guide_figure.h"

class QLabel;

namespace jg::ui {

class MeasureBench : public Bench, public StageTool {
    Q_OBJECT
public:
    explicit MeasureBench(ReviewContext& context);
    void refresh() override;
    void enter() override;
    void leave() override;
    bool removeChosen() override;
    void frameChanged() override { showStep(); }
    Handlers handlers() override;
    StageTool* tool() override { return this; }
    KeyHints hints() const override;
    QString stageCaption() const override;
    std::optional<std::string> ghostOfMeasure() const override;

    bool press(ImagePoint at, double reach) override;
    void drag(ImagePoint at) override;
    void release(ImagePoint at) override;
    void hover(ImagePoint at) override { hover_ = at; }
    bool wantsLoupe() const override {
        return !goal_.active() && (step_.has_value() || drawing_.has_value() || grabbed_.has_value());
    }
    QString loupeText() const override;
    void paintOver(QPainter& p, const ViewTransform& view) override;
    void paintUnder(QPainter& p, const ViewTransform& view) override;

    /// The point asked for now.
    const std::optional<GuideStep>& step() const { return step_; }

private:
    void moveGrip(const Grip& grip, ImagePoint to, const Message& label);
    void startDrawing(MarkKind kind);
    void draw(Drawing drawing);
    void stopDrawing();
    void keepMark(MarkKind kind, const std::vector<ImagePoint>& corners);
    void placeCorner(ImagePoint at);
    /// `smearPx` is how long the joint is smeared on this frame.
    void placePoint(ImagePoint at, double smearPx = 0);
    void placeSmeared();
    void hidePoint();
    void giveAnswer();
    void takeGuess();
    void startCursor();
    std::optional<Guess> guess() const;
    void addMeasures();
    void makeOwnMeasure();
    void nudge(double dx, double dy);
    void toggleGhost();
    void setGoalByHand();
    void toggleOrder();
    void removeSelected();
    void skipMeasure();
    void select(int row);
    void nextOpen();
    /// The point asked for now; follows the frame.
    void showStep();
    /// What is said of the chosen measure; the same on every frame.
    void showNote();
    void goToStep();
    PerformEdit performer();
    /// The measure of the chosen row; null without one.
    const MeasureDefinition* chosen() const;
    const MeasureDefinition* measureAt(int row) const;
    bool isExtra(const std::string& id) const;

    MeasureQuestions questions_;
    PathTools paths_;
    GoalByHand goal_;
    WalkOrder order_ = WalkOrder::Time;
    QLabel* title_;
    QLabel* what_;
    GuideFigure* figure_;
    QLabel* listTitle_;
    RowList* list_;
    QFrame* noteBox_;
    QLabel* note_;
    std::optional<GuideStep> step_;
    std::optional<Drawing> drawing_;
    std::optional<ImagePoint> cursor_; ///< a point that is placed by keys
    bool showGhost_ = true;
    std::optional<Grip> grabbed_;  ///< being dragged
    std::optional<Grip> selected_; ///< nudged by keys
    std::optional<ImagePoint> hover_;
    ImagePoint grabOffset_;
    ImagePoint grabFrom_;
    double slack_ = 0; ///< a hand's tremble that is no drag yet
    bool dragged_ = false;
};

} // namespace jg::ui
