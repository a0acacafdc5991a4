// SPDX-License-Identifier: GPL-3.0-or-later
// Paths, the camera's shake and the order of events while measuring: jobs, what is drawn, what is suggested.
#pragma once

#include "desk/jobs/job.h"
#include "review/assess/guess.h"
#include "review/record/paths.h"
#include "ui/bench/bench.h"

#include <optional>
#include <utility>
#include <vector>

namespace jg::ui {

/// Lives beside its bench, which owns the jobs it starts.
class PathTools {
public:
    PathTools(QWidget* parent, ReviewContext& context, PerformEdit perform)
        : parent_(parent)
        , c_(context)
        , perform_(std::move(perform)) {}

    /// Follows every joint between its clicked frames; while that runs, stops it.
    void follow();
    /// Looks for the camera's shake; once it is known, takes it out of the numbers or leaves it in.
    void steady();
    void showOrder();

    /// A moment of the measure that the paths tell of.
    std::optional<std::pair<Moment, PathEvent>> suggestion(const MeasureDefinition* m) const;
    void goToSuggested(const MeasureDefinition* m);

    /// The speed of the measure's last landmark on the ribbon, where it was followed.
    void showCurve(const MeasureDefinition* m);
    void paintGuess(QPainter& p, const ViewTransform& view, const Guess& guess) const;
    void paintPaths(QPainter& p, const ViewTransform& view, const std::vector<Landmark>& landmarks) const;

private:
    const DeliveryMarks& delivery() const { return c_.session.delivery(); }
    bool performOn(int delivery, const Message& label, std::vector<Change> changes);

    QWidget* parent_;
    ReviewContext& c_;
    PerformEdit perform_;
    Job* following_ = nullptr;
};

} // namespace jg::ui
