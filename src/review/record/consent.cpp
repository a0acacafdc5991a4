// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/consent.h"

namespace jg {

bool Consent::allows(Use use) const {
    return use == Use::Filming ? filming : use == Use::Showing ? showing : model;
}

} // namespace jg
