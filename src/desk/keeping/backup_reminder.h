// SPDX-License-Identifier: GPL-3.0-or-later
// When a coach is reminded of a backup.
#pragma once

#include "library/library.h"

#include <cstdint>

namespace jg {

/// That a library with work in it was never backed up, or long ago; empty while there is nothing to say. Own
/// choice of both figures.
Message backupReminder(Library& library, std::int64_t nowUnix);

} // namespace jg
