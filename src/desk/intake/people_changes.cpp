// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/people_changes.h"

#include "desk/intake/guardian_check.h"

namespace jg {

Status keepAthlete(Store& store, const AthleteEdit& edit, Date today) {
    if (Status guardian = checkGuardian(store, edit.typed, today); !guardian) return guardian;
    const auto kept = store.change(edit.shown.id, [&](Athlete& now) { return applyEdit(edit, now); });
    return kept ? Status(Done{}) : Status(kept.error());
}

Status closePain(Store& store, const SubmissionId& submission, const std::string& words, Date today) {
    const auto kept = store.change(submission, [&](Submission& s) -> Status {
        if (!s.painClosed) s.painClosed = PainClosed{today, words};
        return Done{};
    });
    return kept ? Status(Done{}) : Status(kept.error());
}

} // namespace jg
