// SPDX-License-Identifier: GPL-3.0-or-later
// The running order: stops made from findings, strengths first.
#pragma once

#include "review/assess/assess.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// The frame of a delivery on which a finding shows: its position's, else the first position set, else 0.
std::int64_t frameOfFinding(const DeliveryMarks& delivery, const Playbook& playbook,
                            std::string_view finding);

/// Where a finding shows.
struct FindingPlace {
    int delivery = 1;
    std::int64_t frame = 0;
};

/// Of a finding of the coach's own the frame it was made on; else its number's delivery, or the one that `a`
/// is of, at its position.
FindingPlace placeOfFinding(const Review& review, const Playbook& playbook, const Assessment& a,
                            std::string_view finding);

/// A stop for a finding, on the delivery its number is from. Strength or correction by the assessment.
/// Nothing for an unknown finding.
std::optional<Stop> stopFor(const Review& review, const Playbook& playbook, const Assessment& a,
                            std::string_view finding, StopId id);

/// The stops with `stop` put where it belongs: strengths, corrections, recap last.
std::vector<Stop> withStop(std::vector<Stop> stops, Stop stop);

/// The stops with one of the coach's own behind the one of that place; at the end, before the recap, when
/// there is none.
std::vector<Stop> withOwnStop(std::vector<Stop> stops, Stop stop, std::optional<std::size_t> behind);

/// Findings with a verdict that no stop speaks of: what is good first, what can't be told last. Pure.
std::vector<Judged> unsaid(const Review& review, const Assessment& a);

} // namespace jg
