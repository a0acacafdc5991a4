#include "desk/since.h"

#include "desk/juxta.h"

#include <algorithm>

namespace jg {

namespace {

struct Chosen {
    std::string name;
    JuxtaKey key;
};

std::optional<Chosen> chosenFor(const std::vector<ReviewSummary>& reviews, const Athlete& athlete,
                                const ReviewId& now, Date on) {
    const auto isHere = [&](const ReviewId& id) {
        return std::any_of(reviews.begin(), reviews.end(),
                           [&](const ReviewSummary& r) { return r.id == id && r.athlete == athlete.id; });
    };
    for (const Baseline& b : athlete.baselines)
        if (b.review != now && isHere(b.review)) return Chosen{b.name, {b.review, b.delivery}};
    for (auto r = reviews.rbegin(); r != reviews.rend(); ++r)
        if (r->athlete == athlete.id && r->sent && r->id != now && r->date <= on)
            return Chosen{"", {r->id, 0}};
    return std::nullopt;
}

} // namespace

Result<std::optional<LookBack>> lookBackFrom(Store& store, const Playbook& playbook, const Athlete& athlete,
                                             const ReviewId& now, Date on) {
    auto all = store.reviewsOf(athlete.id);
    if (!all) return all.error();
    std::vector<ReviewSummary> reviews;
    for (const ReviewOfAthlete& r : *all) reviews.push_back(r.summary);
    const auto chosen = chosenFor(reviews, athlete, now, on);
    if (!chosen) return std::optional<LookBack>();
    auto entries = juxtaEntries(store, playbook, {chosen->key});
    if (!entries && entries.error().code == ErrorCode::NotFound) return std::optional<LookBack>();
    if (!entries) return entries.error();
    auto review = store.review(chosen->key.review);
    if (!review) return review.error();
    const auto past = std::find_if(reviews.begin(), reviews.end(),
                                   [&](const auto& r) { return r.id == chosen->key.review; });
    return std::optional(LookBack{chosen->name,
                                  past->date,
                                  {std::move(entries->front()), past->corrections, past->keeps},
                                  review->plan.keeps});
}

std::vector<Followed> becameOf(const LookBack& back, const JuxtaEntry& now) {
    std::vector<Followed> all = followUp(back.past, now);
    std::erase_if(all, [&](const Followed& f) {
        return f.wasKept && f.became != Became::Worse &&
               std::find(back.named.begin(), back.named.end(), f.finding) == back.named.end();
    });
    return all;
}

} // namespace jg
