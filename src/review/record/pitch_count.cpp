// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/pitch_count.h"

#include "coaching/throwing_guidance.h"

namespace jg {

Message inWords(const PitchCount& outing) {
    const Message count = msg(
        "pitch-count.line", {{"date", WrittenDate{outing.on, DateStyle::Year}}, {"pitches", outing.pitches}});
    return outing.felt.empty() ? count : msg("pitch-count.felt", {{"line", count}, {"felt", outing.felt}});
}

Message restInWords(const PitchCount& outing, int age, Date today) {
    const auto guidance = throwingGuidance(age);
    if (!guidance) return {};
    if (outing.pitches > guidance->mostADay &&
        daysBetween(outing.on, today) <= guidance->restAfter(outing.pitches))
        return msg("pitch-count.too-many",
                   {{"age", age},
                    {"most", guidance->mostADay},
                    {"days", guidance->restAfter(outing.pitches)},
                    {"until", addDays(outing.on, guidance->restAfter(outing.pitches))}});
    const int days = guidance->restAfter(outing.pitches);
    const Date until = addDays(outing.on, days);
    if (days == 0 || daysBetween(today, until) < 0) return {};
    return msg("pitch-count.rest", {{"age", age}, {"days", days}, {"until", until}});
}

} // namespace jg
