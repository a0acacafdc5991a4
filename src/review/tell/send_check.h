// SPDX-License-Identifier: GPL-3.0-or-later
// Before anything leaves the house: what forbids sending, and what the coach should know.
#pragma once

#include "review/assess/assess.h"
#include "review/record/people.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// One finding of the check. A stop forbids sending.
struct SendProblem {
    bool stop = true;
    Message text;
    std::optional<Stage> mendAt =
        {}; ///< the stage that mends it; none = where it is said, or outside of the review
};

/// Who gets the letter: the guardian's address for a minor, else the athlete's.
struct Recipient {
    std::string name;
    std::string email;
    bool guardian = false;
};

/// Errors: Refused, when the address that must be used is missing.
Result<Recipient> recipientFor(const Athlete& athlete, Date today);

/// All reasons against sending: items not looked at, corrections without a drill, doses missing, throwing
/// drills with pain, pain not confirmed, stops not said, a strength that is also a correction, a film of
/// another athlete, more than three corrections. `painElsewhere`: an open report of the
/// athlete that came with another film. Pure.
std::vector<SendProblem> checkBeforeSending(const Review& review, const Playbook& playbook,
                                            const Assessment& a, const Athlete& athlete,
                                            const Submission& submission, Date today,
                                            bool painElsewhere = false);

bool forbids(const std::vector<SendProblem>& problems);

} // namespace jg
