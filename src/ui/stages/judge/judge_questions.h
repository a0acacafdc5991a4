// SPDX-License-Identifier: GPL-3.0-or-later
// What the judge bench asks: which approach, which target, a verdict by hand, a finding of the coach's own.
#pragma once

#include "review/assess/card.h"
#include "ui/bench/bench.h"

#include <functional>

namespace jg::ui {

/// Asks by dialogs, each of a few choices, and performs the answer. The context outlives it.
class JudgeQuestions {
public:
    JudgeQuestions(QWidget* parent, ReviewContext& context, PerformEdit perform);

    /// Another approach for this review, or a part of it.
    void approach();
    /// What a measure is to be judged by: another approach's target, one that is typed, or none.
    void target(const MeasureDefinition& measure);
    /// What is seen, one of the measure's options.
    void seen(const MeasureDefinition& measure);
    /// Hands the grade on with the side on which the row is off: asked where it can be off two ways and no
    /// number tells, by one key.
    void whichWay(const std::string& row, const Grade& grade, const std::function<void(const Grade&)>& then);
    /// A verdict by hand wants a reason; then it counts before the target's.
    void byHand(const MeasureDefinition& measure, const std::function<void(const std::string&)>& then);
    /// Words, part of the body and drill of something that no playbook lists; it stands on the frame shown.
    void ownFinding(std::int64_t frame);
    /// This delivery by two approaches.
    void compare();

private:
    void part(const std::string& approach);
    void forWhom(const Target& target);
    void why(const Target& target);
    void groupOf(OwnFinding finding);
    void drillOf(OwnFinding finding);
    void keep(OwnFinding finding);
    void tell(const Status& done);
    int age() const { return c_.session.age(); }

    QWidget* parent_;
    ReviewContext& c_;
    PerformEdit perform_;
};

} // namespace jg::ui
