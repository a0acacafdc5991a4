// SPDX-License-Identifier: GPL-3.0-or-later
// What a review's plan has to keep to, and a proposal of what to work on.
#pragma once

#include "coaching/drill_gates.h"
#include "review/assess/assess.h"
#include "review/record/people.h"

#include <string>
#include <vector>

namespace jg {

/// What is known of every measure and item of the approach on this athlete.
Known knownOf(const Assessment& a);

/// Roots and order of a review's faults, with what is known and the coach's own word on the links.
CauseReport causesOf(const Playbook& playbook, const Assessment& a, const Plan& plan);

/// What decides on the drills of a plan, with what is worked on and its sides. `painElsewhere`: an open
/// report that came with another film.
DrillGates gatesFor(const Plan& plan, const Assessment& a, const Athlete& athlete,
                    const Submission& submission, Date today, bool painElsewhere);

/// True when the coach called the finding the athlete's own style; what protects the arm is none. Pure.
bool isStyle(const Plan& plan, const Assessment& a, std::string_view finding);

/// A finding with what speaks for the place it has.
struct Proposed {
    std::string finding;
    std::vector<Message> reasons;
};

struct Proposal {
    std::vector<Proposed> work;  ///< at most mostCorrections()
    std::vector<Proposed> keep;  ///< strengths, spoken ones first; at least one when there is any
    std::vector<Proposed> later; ///< logged: what follows from the others, near misses, more than fits
};

/// What to work on first: arm protection, then roots before consequences, lower body before upper, larger gap
/// before smaller. What follows from a root is looked at again before it gets drills of its own. What is
/// chosen so is taken up in the order in which the approach teaches. Pure. Source: common practice, no
/// source.
Proposal proposePriorities(const Playbook& playbook, const Review& review, const Assessment& a,
                           const CauseReport& causes, int age);

} // namespace jg
