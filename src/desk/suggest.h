// First proposals the coach may take or leave: corrections, drills, words.
#pragma once

#include "coaching/causes.h"
#include "review/assess.h"
#include "review/people.h"

#include <string>
#include <vector>

namespace jg {

/// Faults in the order to work on them, by the cause graph.
CauseReport rankedFaults(const Playbook& playbook, const Assessment& a);

/// A plan with `corrections` and two drills for the first, one for each other; dates and words filled in
/// where empty. Pure.
Plan proposePlan(const Playbook& playbook, const Review& review, const Athlete& athlete,
                 const Submission& submission, const Clip& clip, const std::vector<std::string>& corrections,
                 Date today);

} // namespace jg
