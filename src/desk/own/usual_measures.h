// SPDX-License-Identifier: GPL-3.0-or-later
// The measures that a coach usually takes beside an approach's own: chosen once, ticked with one press later.
#pragma once

#include "library/store.h"

#include <string>
#include <vector>

namespace jg {

/// By their ids, as they were kept; ids of measures that are gone are the caller's to leave out.
std::vector<std::string> usualMeasures(Store& store);
/// In their place come those of `ids`; of two who choose at once the second stands. Errors: those of writing.
Status keepUsualMeasures(Store& store, const std::vector<std::string>& ids);

} // namespace jg
