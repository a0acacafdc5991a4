// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/guardian_check.h"

#include "base/letters.h"

namespace jg {

Status checkGuardian(Store& store, const Athlete& athlete, Date today) {
    if (athlete.guardianEmail.empty()) return Done{};
    const auto all = store.athletes();
    if (!all) return all.error();
    for (const Athlete& other : *all)
        if (other.id != athlete.id && other.isMinorOn(today) &&
            lowered(other.email) == lowered(athlete.guardianEmail))
            return fail(ErrorCode::BadInput,
                        msg("guardian-check.another-child",
                            {{"address", athlete.guardianEmail}, {"name", other.fullName()}}));
    return Done{};
}

} // namespace jg
