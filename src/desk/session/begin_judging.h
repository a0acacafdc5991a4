// SPDX-License-Identifier: GPL-3.0-or-later
// What a review is judged by, frozen when it is begun.
#pragma once

#include "coaching/playbook.h"
#include "library/store.h"

#include <vector>

namespace jg {

/// The house's way of judging, where an athlete has none of their own.
inline constexpr const char* kUsualApproach = "load-and-drive";

/// The approach an athlete is judged by: their own, else the usual one, else the first. Null for an empty
/// playbook.
const Approach* approachFor(const Playbook& playbook, const Athlete& athlete);

/// An approach with the targets that are set for one athlete alone in place of its own.
Approach withTargetsOf(Approach approach, const Athlete& athlete);

/// A judging of an athlete by an approach as it is that day, with their own targets, nothing graded yet; the
/// playbook's text is kept in the library for it. Errors: those of Store.
Result<Judging> beginJudging(Store& store, const Playbook& playbook, const Approach& approach,
                             const Athlete& athlete, Date today);

/// The targets that were set for one review alone: those that its judging has otherwise than the approach or
/// focus it was begun with, in `playbook` as it was then, and those set aside. Pure.
std::vector<Target> setForReview(const Playbook& playbook, const Judging& judging, const Athlete& athlete);

/// Puts such targets into a judging by a focus, or by a whole approach for null; those outside the focus are
/// set aside. Pure.
void takeOver(Judging& judging, const std::vector<Target>& own, const FocusCard* focus);

} // namespace jg
