// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/athlete_page.h"

#include "kinematics/estimate.h"
#include "review/compare/likeness.h"
#include "review/record/deliveries.h"
#include "review/tell/plan_rules.h"

#include <algorithm>
#include <map>

namespace jg {

namespace {

/// One number with all that decides whether it may stand beside another.
struct Candidate {
    TrendPoint point;
    Likeness likeness;
    Target target;
};

std::optional<Candidate> candidateOf(const ReviewOfAthlete& r, const Athlete& athlete,
                                     const std::string& measure) {
    const MeasureRow* row = r.results ? r.results->measure(measure) : nullptr;
    const DeliveryMarks* d = row ? r.delivery(row->delivery) : nullptr;
    if (!d || !row->value.value || r.submission.clips.empty()) return std::nullopt;
    return Candidate{{r.summary.date, *row->value.value, row->value.half95()},
                     {filmOf(*d, r.submission.clips).view,
                      d->conditions,
                      row->value.unit,
                      r.approach,
                      isLength(row->value.unit) ? athlete.heightOn(r.summary.date) : 0,
                      {},
                      turnSaidAt(row->value)},
                     row->target};
}

constexpr const char* kTurnNotSaid = "compare.turn";

/// Why `other` can't be compared with `newest`, as an id of the catalogue; empty when it can.
std::string whyNot(const Candidate& newest, const Candidate& other) {
    const auto unlike = firstUnlike(newest.likeness, other.likeness);
    if (!unlike) return "";
    switch (*unlike) {
    case Unlike::Side:
        return "compare.side";
    case Unlike::Approach:
        return "compare.approach";
    case Unlike::Conditions:
        return "compare.conditions";
    case Unlike::Height:
        return "compare.height";
    case Unlike::Turn:
        return kTurnNotSaid;
    case Unlike::Definition: // all are of one playbook here
    case Unlike::Unit:
        break;
    }
    return "compare.unit";
}

MeasureLine lineOf(const std::vector<ReviewOfAthlete>& reviews, const Athlete& athlete,
                   const std::string& measure) {
    std::vector<Candidate> all;
    for (const ReviewOfAthlete& r : reviews)
        if (auto c = candidateOf(r, athlete, measure)) all.push_back(std::move(*c));
    MeasureLine line{measure, {}, {}, {}, {}, {}};
    if (all.empty()) return line;
    const Candidate& newest = all.back();
    line.unit = newest.likeness.unit;
    line.target = newest.target;
    std::map<std::string, int> left;
    std::vector<const Candidate*> shown;
    for (const Candidate& c : all) {
        const std::string why = whyNot(newest, c);
        if (!why.empty() && why != kTurnNotSaid) {
            ++left[why];
            continue;
        }
        line.points.push_back(c.point);
        shown.push_back(&c);
        if (!c.likeness.turnSaid) ++left[kTurnNotSaid];
    }
    std::vector<Message> leftOut;
    for (const auto& [why, count] : left) leftOut.push_back(msg(why, {{"count", count}}));
    line.leftOut = joined(ListStyle::Commas, std::move(leftOut));
    // A dot may stand there with its error, but how far two lie apart is not told without the turn of both.
    if (shown.size() < 2) return line;
    const Candidate &before = **(shown.end() - 2), &last = *shown.back();
    if (!before.likeness.turnSaid || !last.likeness.turnSaid) return line;
    const TrendPoint &a = before.point, &b = last.point;
    line.trend = trendOf(line.target, a.value, a.half95 / kSdsOf95, b.value, b.half95 / kSdsOf95);
    return line;
}

Status addResults(Store& store, const Playbook& playbook, const Athlete& athlete, ReviewOfAthlete& r) {
    if (r.results) return Done{};
    auto review = store.review(r.summary.id);
    if (!review) return review.error();
    if (!r.submission.clips.empty()) r.results = assess(*review, playbook, r.submission.clips, athlete.hand);
    return Done{};
}

} // namespace

namespace {

/// What was found at the last letter and left for later.
Status addWaiting(Store& store, const Playbook& playbook, AthletePage& page) {
    const auto sent = std::find_if(page.reviews.rbegin(), page.reviews.rend(),
                                   [](const ReviewOfAthlete& r) { return r.summary.sent && r.results; });
    if (sent == page.reviews.rend()) return Done{};
    auto review = store.review(sent->summary.id);
    if (!review) return review.error();
    const auto& worked = review->plan.corrections;
    for (const std::string& id : causesOf(playbook, *sent->results, review->plan).order)
        if (std::find(worked.begin(), worked.end(), id) == worked.end())
            page.waiting.push_back(goalOf(playbook, *sent->results, id));
    return Done{};
}

} // namespace

Result<AthletePage> readAthletePage(Store& store, const Playbook& playbook, const AthleteId& id) {
    auto athlete = store.athlete(id);
    if (!athlete) return athlete.error();
    AthletePage page;
    page.athlete = std::move(*athlete);
    auto pain = store.painOf(id);
    if (!pain) return pain.error();
    page.pain = std::move(*pain);
    auto reviews = store.reviewsOf(id);
    if (!reviews) return reviews.error();
    page.reviews = std::move(*reviews);
    page.leftOut = store.takeLeftOut();
    for (ReviewOfAthlete& r : page.reviews) {
        if (auto added = addResults(store, playbook, page.athlete, r); !added) return added.error();
        auto versions = store.versions(r.summary.id);
        if (!versions) return versions.error();
        if (!versions->empty()) page.versions[r.summary.id] = std::move(*versions);
    }
    if (!page.reviews.empty() && page.reviews.back().results)
        for (const MeasureRow& row : page.reviews.back().results->measures)
            if (MeasureLine line = lineOf(page.reviews, page.athlete, row.id); !line.points.empty())
                page.measures.push_back(std::move(line));
    if (auto added = addWaiting(store, playbook, page); !added) return added.error();
    auto promises = store.promisesTo(id);
    if (!promises) return promises.error();
    page.promises = std::move(*promises);
    return page;
}

} // namespace jg
