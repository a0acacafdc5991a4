// SPDX-License-Identifier: GPL-3.0-or-later
// Whether an address that is to be a guardian's can be one.
#pragma once

#include "library/store.h"

namespace jg {

/// A child's own address is no guardian's, nor is that of another child of the library, whatever the case of
/// its letters. Errors: BadInput naming the other child, those of reading.
Status checkGuardian(Store& store, const Athlete& athlete, Date today);

} // namespace jg
