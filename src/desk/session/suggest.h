// SPDX-License-Identifier: GPL-3.0-or-later
// First proposals the coach may take or leave: corrections, strengths, drills, words.
#pragma once

#include "review/tell/plan_rules.h"
#include "words/words.h"

#include <string>
#include <vector>

namespace jg {

/// What a plan is made for.
struct PlanFor {
    const Playbook& playbook;
    const Review& review;
    const Assessment& told;
    const Athlete& athlete;
    const Submission& submission;
    const Clip& clip;
    Date today{};
    bool painElsewhere = false;

    DrillGates gates() const;
};

/// The review's plan with `corrections`: a drill for each that has none, of the kind that is needed, and
/// strengths where none is named. Dates and words are filled in where empty; what is filled in is the coach's
/// own text from then on, so it comes in the letter's language. Pure.
Plan proposePlan(const PlanFor& plan, const std::vector<std::string>& corrections,
                 const Words& words = english());

/// The plan with what proposePlan() filled in and nobody changed, said in another language. Pure.
Plan inLanguage(const PlanFor& plan, const Words& from, const Words& to);

/// The plan with what proposePlan() filled in, in any language, and nobody changed, said in the reader's.
/// Pure.
Plan inReadersLanguage(const PlanFor& plan);

/// What to film for the next look: the view that would show most of what these films could not. Pure.
Message filmNext(const PlanFor& plan);

} // namespace jg
