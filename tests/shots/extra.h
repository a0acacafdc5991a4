// SPDX-License-Identifier: GPL-3.0-or-later
// Views that are not in the set, for looking at them.
#pragma once

#include "tests/shots/photographer.h"

namespace jg::test {

void shootExtra(Photographer& p);

} // namespace jg::test
