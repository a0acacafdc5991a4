// SPDX-License-Identifier: GPL-3.0-or-later
// Which measures the walk takes beside the approach's own.
#pragma once

#include "coaching/playbook.h"
#include "review/assess/assess.h"
#include "review/record/review.h"

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// What is there to choose from, and what a press may tick or untick together.
struct MeasureChoice {
    const Playbook& playbook;
    const Review& review;
    const Assessment& assessment;
    View view;
    std::vector<std::string> usual; ///< what the coach usually takes
};

/// What becomes of it. `keepUsual` says what went wrong, else nothing; `makeOwn` follows `take` when the
/// coach wants a measure of their own.
struct MeasureChoiceDone {
    std::function<void(std::vector<std::string>)> take;
    std::function<QString(std::vector<std::string>)> keepUsual;
    std::function<void()> makeOwn;
};

/// Shows the whole catalogue by group, with what this view can see; hands on the measures ticked beside the
/// approach's. Esc changes nothing.
void pickMeasures(QWidget* parent, const MeasureChoice& choice, const MeasureChoiceDone& done);

} // namespace jg::ui
