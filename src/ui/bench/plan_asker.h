// SPDX-License-Identifier: GPL-3.0-or-later
// Asks about the plan of the review in hand and keeps what is answered.
#pragma once

#include "desk/session/suggest.h"
#include "ui/bench/bench.h"

#include <functional>
#include <string>

namespace jg::ui {

/// Makes a plan the review's, as one step that can be undone.
using KeepPlan = std::function<void(const Message& label, const Plan& plan)>;

/// What a plan of the session's review is proposed from. Both outlive it.
PlanFor planFor(const ReviewSession& session, const Review& review);

/// Asks for a promise to or by the session's athlete, keeps it and says so.
void askForPromise(QWidget* parent, const ReviewSession& session,
                   const std::function<void(const QString&)>& tell);

/// The questions of Prescribe, each in a dialog over `parent`'s window. Lives as long as the bench.
class PlanAsker {
public:
    PlanAsker(QWidget* parent, ReviewContext& context, KeepPlan keep)
        : parent_(parent)
        , c_(context)
        , keep_(std::move(keep)) {}

    void causes(const std::string& finding);
    void whyNot(const std::string& finding);
    void size(const std::string& finding);
    void drills(const std::string& finding);
    void week();
    void keeps();
    /// Saves the week where the coach says: as a calendar or as a sheet of paper.
    void save(bool calendar);

private:
    void writeDrill(const std::string& finding);
    /// The plan with drills proposed for its corrections; those it has stay.
    Plan withDrills(const Plan& plan) const;
    Plan withoutStyle(Plan plan, const std::string& finding);
    const Review& review() const { return c_.session.review(); }
    const Playbook& book() const { return c_.session.playbook(); }

    QWidget* parent_;
    ReviewContext& c_;
    KeepPlan keep_;
};

} // namespace jg::ui
