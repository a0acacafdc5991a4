// SPDX-License-Identifier: GPL-3.0-or-later
// Whose a film is.
#pragma once

#include "library/store.h"

#include <optional>
#include <string>

namespace jg {

/// Somebody else for whom the film under a hash was taken in, too; nothing when it is the athlete's alone.
/// Errors: those of reading the store.
Result<std::optional<Athlete>> otherOwner(Store& store, const std::string& mediaHash,
                                          const AthleteId& athlete);

} // namespace jg
