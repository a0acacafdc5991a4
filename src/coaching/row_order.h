// SPDX-License-Identifier: GPL-3.0-or-later
// Which row is read before which.
#pragma once

#include "coaching/playbook.h"

namespace jg {

/// A moment's place in a delivery, rising with time; moments that are read together share one. Pure. Source:
/// own choice, from the order of the key positions.
double placeInTime(Moment moment);

/// True when `from` is read later than `to`: then it is no cause of it. False for a row that is not known.
/// Pure.
bool isLater(const Playbook& playbook, std::string_view from, std::string_view to);

} // namespace jg
