// SPDX-License-Identifier: GPL-3.0-or-later
// Inches or centimetres: the coach's choice, kept in the library.
#pragma once

#include "coaching/playbook.h"
#include "library/library.h"

namespace jg {

/// Gives the playbook the library's choice; inches until there is one.
void loadLengthUnit(Library& library, Playbook& playbook);

/// Keeps another choice and gives it to the playbook. Errors: those of Library; then nothing is changed.
Status keepLengthUnit(Library& library, Playbook& playbook, LengthUnit unit);

} // namespace jg
