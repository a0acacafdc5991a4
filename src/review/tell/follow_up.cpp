// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/follow_up.h"

#include "review/assess/number_words.h"
#include "review/tell/told_number.h"

#include <array>

namespace jg {

namespace {

/// 0 = as wanted, more = further off.
int distanceOf(Verdict verdict) {
    return verdict == Verdict::Protect ? pipsOf(Verdict::Keep) : pipsOf(Verdict::Keep) - pipsOf(verdict);
}

Became byVerdicts(const Judged& before, const Judged& now, bool wasKept) {
    if (now.cannotTell || before.cannotTell) return Became::CantTell;
    if (now.strength) return wasKept ? Became::Kept : Became::Good;
    if (wasKept) return Became::Worse;
    const int was = distanceOf(before.finding.verdict), is = distanceOf(now.finding.verdict);
    return is < was ? Became::Better : is > was ? Became::Worse : Became::Same;
}

Became byTrend(Trend trend, const Judged* now, bool wasKept) {
    const bool good = now && now->strength;
    switch (trend) {
    case Trend::Better:
        return good ? Became::Good : Became::Better;
    case Trend::Worse:
        return Became::Worse;
    case Trend::Changed: // from one good number to another, or as far on the other side
        return good ? (wasKept ? Became::Kept : Became::Good) : Became::Same;
    case Trend::InsideError:
    case Trend::InsideSpread:
        break;
    }
    return wasKept ? Became::Kept : Became::Same;
}

void followMeasure(const JuxtaEntry& before, const JuxtaEntry& now, FindingSince& f) {
    const MeasureRow* row = now.results.measure(f.finding);
    const auto change = compareMeasure(before, now, f.finding);
    if (!change) {
        const bool looked = row && row->value.state != MeasureState::NotLookedAt;
        f.became = looked ? Became::CantTell : Became::NotLooked;
        if (looked) f.why = row->value.reason;
        return;
    }
    if (!change->trend) {
        f.became = Became::CantTell;
        f.why = change->notComparable;
        return;
    }
    f.became = byTrend(*change->trend, now.results.judged(f.finding), f.wasKept);
    const MeasureValue told[] = {asTold(*change->values[0]), asTold(*change->values[1])};
    f.numbers = msg("follow.plain", {{"before", numberInWords(*told[0].value, told[0].unit)},
                                     {"now", numberInWords(*told[1].value, told[1].unit)}});
    f.why = msg("follow.numbers", {{"before", labelOf(*change->values[0])},
                                   {"now", labelOf(*change->values[1])},
                                   {"trend", nameOf(*change->trend)}});
}

void followItem(const JuxtaEntry& before, const JuxtaEntry& now, FindingSince& f) {
    const Judged *was = before.results.judged(f.finding), *is = now.results.judged(f.finding);
    if (was && is) {
        f.became = byVerdicts(*was, *is, f.wasKept);
        return;
    }
    for (const ItemRow& item : now.results.items)
        if (item.id == f.finding && item.grade) f.became = Became::CantTell;
}

} // namespace

std::vector<FindingSince> followUp(const PastReview& before, const JuxtaEntry& now) {
    std::vector<FindingSince> all;
    const auto follow = [&](const std::string& finding, bool wasKept) {
        FindingSince f{finding, wasKept, Became::NotLooked, {}};
        const MeasureRow* measured = before.entry.results.measure(finding);
        if (measured && measured->value.value)
            followMeasure(before.entry, now, f);
        else
            followItem(before.entry, now, f);
        all.push_back(std::move(f));
    };
    for (const std::string& id : before.corrections) follow(id, false);
    for (const std::string& id : before.keeps) follow(id, true);
    return all;
}

Message nameOf(Became became) {
    static constexpr std::array<const char*, 7> ids = {
        "follow.good",  "follow.better",    "follow.kept",      "follow.same",
        "follow.worse", "follow.cant-tell", "follow.not-looked"};
    return msg(ids.at(static_cast<std::size_t>(became)));
}

} // namespace jg
