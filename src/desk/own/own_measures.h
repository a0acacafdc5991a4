// SPDX-License-Identifier: GPL-3.0-or-later
// Measures of the coach's own: kept in the library, joined to the playbook.
#pragma once

#include "coaching/playbook.h"
#include "kinematics/own_measure.h"
#include "library/library.h"
#include "words/words.h"

namespace jg {

/// Joins the library's own measures to a playbook. Errors: Damaged; then the playbook stays as it was.
Status loadOwnMeasures(Library& library, Playbook& playbook);

/// Keeps a new one and joins it; returns its id. Errors: BadInput (what is missing), Refused (its name is
/// taken), those of Library; then nothing is kept.
Result<std::string> keepOwnMeasure(Library& library, Playbook& playbook, const OwnMeasureOrder& order,
                                   const Words& words = english());

} // namespace jg
