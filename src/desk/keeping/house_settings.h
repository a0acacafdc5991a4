// SPDX-License-Identifier: GPL-3.0-or-later
// What a library keeps of its house beside words.
#pragma once

#include "library/store.h"

#include <string>

namespace jg {

/// The house's own mark as PNG; empty = none.
std::string houseMark(Store& store);
/// Keeps it; an empty one takes it away. Errors: those of Store.
Status keepHouseMark(Store& store, const std::string& png);

/// Whether the coach has looked up the figures of the guidance on pitches.
bool guidanceConfirmed(Store& store);
/// Errors: those of Store.
Status confirmGuidance(Store& store, bool confirmed);

} // namespace jg
