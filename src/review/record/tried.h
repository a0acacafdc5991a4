// SPDX-License-Identifier: GPL-3.0-or-later
// Which trial of a measure's interval tells of the number at hand.
#pragma once

#include "coaching/playbook.h"
#include "review/record/review.h"

#include <optional>

namespace jg {

/// Null for what was not tried: a measure without points, a film of unknown rate, a camera of which nobody
/// said how it stood (such a number carries a warning of its own). Valid while the playbook lives. Pure.
const Trial* trialOf(const Playbook& playbook, const std::string& measure, const DeliveryMarks& delivery,
                     double captureFps);

/// What is told of a number about which no trial says that it does not keep its promise: how it did, or, of a
/// measure with points that was to be tried and was seen too seldom for it, that it was not. Pure.
Message triedInWords(const Playbook& playbook, const MeasureDefinition& measure,
                     const DeliveryMarks& delivery, double captureFps);

/// How often such an error held the truth, and how far the number leaned, where that shows. Pure.
Message trialInWords(const Trial& trial);

/// How far the number leaned and how much it differs in space, each where that shows, in one short sentence;
/// else empty. Pure.
Message leanInShort(const Trial& trial);

} // namespace jg
