// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/since.h"

#include "desk/session/juxta.h"
#include "kinematics/answers.h"

#include <algorithm>

namespace jg {

namespace {

struct Chosen {
    std::string name;
    JuxtaKey key;
};

std::optional<Chosen> chosenFor(const std::vector<ReviewOfAthlete>& all, const Athlete& athlete,
                                const ReviewId& now, Date on) {
    const auto isHere = [&](const ReviewId& id) {
        return std::any_of(all.begin(), all.end(), [&](const auto& r) { return r.summary.id == id; });
    };
    for (const Baseline& b : athlete.baselines)
        if (b.review != now && isHere(b.review)) return Chosen{b.name, {b.review, b.delivery}};
    for (auto r = all.rbegin(); r != all.rend(); ++r)
        if (r->summary.sent && r->summary.id != now && r->summary.date <= on)
            return Chosen{"", {r->summary.id, 0}};
    return std::nullopt;
}

} // namespace

Result<std::optional<LookBack>> lookBackFrom(Store& store, const Playbook& playbook, const Athlete& athlete,
                                             const std::vector<ReviewOfAthlete>& all, const ReviewId& now,
                                             Date on) {
    const auto chosen = chosenFor(all, athlete, now, on);
    if (!chosen) return std::optional<LookBack>();
    auto entries = juxtaEntries(store, playbook, {chosen->key});
    if (!entries && entries.error().code == ErrorCode::NotFound) return std::optional<LookBack>();
    if (!entries) return entries.error();
    auto review = store.review(chosen->key.review);
    if (!review) return review.error();
    const ReviewSummary& past = std::find_if(all.begin(), all.end(), [&](const auto& r) {
                                    return r.summary.id == chosen->key.review;
                                })->summary;
    return std::optional(LookBack{chosen->name,
                                  past.date,
                                  {std::move(entries->front()), past.corrections, past.keeps},
                                  review->plan.keeps});
}

std::vector<FindingSince> becameOf(const LookBack& back, const JuxtaEntry& now) {
    std::vector<FindingSince> all = followUp(back.past, now);
    std::erase_if(all, [&](const FindingSince& f) {
        return f.wasKept && f.became != Became::Worse && !isAmong(back.named, f.finding);
    });
    return all;
}

} // namespace jg
