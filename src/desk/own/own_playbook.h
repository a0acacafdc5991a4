// SPDX-License-Identifier: GPL-3.0-or-later
// What a coach added to the playbook that came with the program.
#pragma once

#include "coaching/playbook.h"
#include "library/library.h"

namespace jg {

/// Joins the library's own measures, items, causes, drills and approaches to a playbook. What can't be read
/// is left out and the rest joined; returns the first error. Errors: Damaged, BadInput.
Status loadOwnPlaybook(Library& library, Playbook& playbook);

} // namespace jg
