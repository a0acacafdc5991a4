// First proposals the coach may take or leave: corrections, drills, words.
#pragma once

#include "coaching/causes.h"
#include "review/assess.h"
#include "review/people.h"
#include "words/words.h"

#include <string>
#include <vector>

namespace jg {

/// Faults in the order to work on them, by the cause graph.
CauseReport rankedFaults(const Playbook& playbook, const Assessment& a);

/// A plan with `corrections` and two drills for the first, one for each other; dates and words filled in
/// where empty; what
/// is filled in is the coach's own text from then on, so it comes in the letter's language. Pure.
Plan proposePlan(const Playbook& playbook, const Review& review, const Athlete& athlete,
                 const Submission& submission, const Clip& clip, const std::vector<std::string>& corrections,
                 Date today, bool painElsewhere = false, const Words& words = english());

} // namespace jg
