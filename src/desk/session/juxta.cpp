// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/juxta.h"

#include "coaching/playbook_reader.h"
#include "desk/keeping/known_veils.h"
#include "film/reader.h"
#include "review/record/allowed.h"
#include "review/record/deliveries.h"

#include <algorithm>
#include <iterator>
#include <map>
#include <memory>
#include <set>

namespace jg {

namespace {

/// What the measures meant in the playbook a review was judged by; each text is read once.
class Definitions {
public:
    Definitions(Store& store, const Playbook& live)
        : store_(store)
        , live_(live) {}

    const std::map<std::string, std::string>& of(const Review& review) {
        const std::string& hash = review.judging().playbook;
        if (const auto known = known_.find(hash); known != known_.end()) return known->second;
        const auto text = hash.empty() ? Result<std::string>(std::string()) : store_.playbookText(hash);
        const auto thawed = text && !text->empty() ? thawPlaybook(live_, *text) : Result<Playbook>(live_);
        return known_[hash] = definitionsOf(thawed ? *thawed : live_);
    }

private:
    Store& store_;
    const Playbook& live_;
    std::map<std::string, std::map<std::string, std::string>> known_; ///< by the playbook's hash
};

std::string baselineOf(const Athlete& athlete, const JuxtaKey& key, int lead) {
    const auto numberOf = [&](int delivery) { return delivery == 0 ? lead : delivery; };
    for (const Baseline& b : athlete.baselines)
        if (b.review == key.review && numberOf(b.delivery) == numberOf(key.delivery)) return b.name;
    return {};
}

Result<JuxtaEntry> entryFor(Store& store, const Playbook& playbook, Definitions& definitions,
                            KnownVeils& veils, const JuxtaKey& key) {
    auto review = store.review(key.review);
    if (!review) return review.error();
    auto athlete = store.athlete(review->athlete);
    if (!athlete) return athlete.error();
    auto submission = store.submission(review->submission);
    if (!submission) return submission.error();
    if (submission->clips.empty()) return fail(ErrorCode::NotFound, msg("juxta.no-film"));
    if (key.delivery != 0 && !review->delivery(key.delivery))
        return fail(ErrorCode::NotFound, msg("juxta.no-delivery", {{"number", key.delivery}}));
    const int number = review->deliveryOr(key.delivery == 0 ? review->lead : key.delivery).number;
    auto kept = store.results(key.review);
    if (!kept) return kept.error();
    const bool asTold = review->sent && *kept && number == review->deliveryOr(review->lead).number;
    JuxtaEntry entry = juxtaEntryOf(
        *review, number, *athlete, submission->clips,
        asTold ? std::move(**kept) : assess(*review, playbook, submission->clips, athlete->hand, number),
        definitions.of(*review));
    auto known = veils.on(entry.clip, review->athlete, review->id);
    if (!known) return known.error();
    entry.marks.veils.merge(*known);
    return entry;
}

} // namespace

JuxtaEntry juxtaEntryOf(const Review& review, int delivery, const Athlete& athlete,
                        const std::vector<Clip>& clips, Assessment results,
                        std::map<std::string, std::string> definitions) {
    JuxtaEntry e;
    e.key = {review.id, delivery};
    e.athlete = athlete.id;
    e.name = athlete.firstName;
    e.baseline = baselineOf(athlete, e.key, review.leading());
    e.age = athlete.ageOn(review.date);
    e.when = review.date;
    e.heightM = athlete.heightOn(review.date);
    e.hand = athlete.hand;
    e.marks = review.deliveryOr(delivery);
    e.clip = filmOf(e.marks, clips);
    e.results = std::move(results);
    e.definitions = std::move(definitions);
    return e;
}

Result<std::vector<JuxtaEntry>> juxtaEntries(Store& store, const Playbook& playbook,
                                             const std::vector<JuxtaKey>& keys) {
    std::vector<JuxtaEntry> entries;
    Definitions definitions(store, playbook);
    KnownVeils veils(store);
    for (const JuxtaKey& key : keys) {
        auto entry = entryFor(store, playbook, definitions, veils, key);
        if (!entry) return entry.error();
        entries.push_back(std::move(*entry));
    }
    return entries;
}

Result<std::vector<JuxtaOffer>> juxtaOffers(Store& store, const AthleteId& first) {
    auto athletes = store.athletes();
    if (!athletes) return athletes.error();
    std::stable_partition(athletes->begin(), athletes->end(),
                          [&](const Athlete& a) { return a.id == first; });
    std::vector<JuxtaOffer> offers;
    for (const Athlete& athlete : *athletes) {
        auto own = juxtaOffersOf(store, athlete);
        if (!own) return own.error();
        std::move(own->begin(), own->end(), std::back_inserter(offers));
    }
    return offers;
}

Result<std::vector<JuxtaOffer>> juxtaOffersOf(Store& store, const Athlete& athlete) {
    auto reviews = store.reviewsOf(athlete.id);
    if (!reviews) return reviews.error();
    std::vector<JuxtaOffer> offers;
    for (const ReviewOfAthlete& r : *reviews)
        for (const DeliveryMarks& d : r.deliveries) {
            if (d.moments.empty() || r.submission.clips.empty()) continue;
            JuxtaOffer offer{{r.summary.id, d.number},
                             athlete,
                             r.summary.date,
                             filmOf(d, r.submission.clips).view,
                             d.conditions,
                             {},
                             0};
            offer.baseline = baselineOf(athlete, offer.key, d.number);
            for (const MomentInfo& m : keyPositions()) offer.positions += d.frameOf(m.moment) ? 1 : 0;
            offers.push_back(std::move(offer));
        }
    return offers;
}

Result<std::vector<JuxtaEntry>> allDeliveries(Store& store, const Playbook& playbook,
                                              const AthleteId& athlete) {
    auto reviews = store.reviewsOf(athlete);
    if (!reviews) return reviews.error();
    std::vector<JuxtaKey> keys;
    for (const ReviewOfAthlete& r : *reviews)
        for (const DeliveryMarks& d : r.deliveries)
            if (!d.blank() && !r.submission.clips.empty()) keys.push_back({r.summary.id, d.number});
    if (keys.empty()) return fail(ErrorCode::NotFound, msg("juxta.no-numbers"));
    return juxtaEntries(store, playbook, keys);
}

struct JuxtaFilms::Inner {
    const Library& library;
    const JuxtaSheet& sheet;
    Stills stills;
    std::stop_token stop;
    std::map<std::string, std::unique_ptr<Reader>> films; ///< one film may stand in several rows

    std::filesystem::path pathOf(const Clip& clip) const {
        const auto scrub = library.scrubPath(clip);
        const bool near = stills == Stills::Near && std::filesystem::exists(scrub);
        return near ? scrub : library.mediaPath(clip);
    }
};

JuxtaFilms::JuxtaFilms(const Library& library, const JuxtaSheet& sheet, Stills stills, std::stop_token stop)
    : inner_(std::make_unique<Inner>(Inner{library, sheet, stills, std::move(stop), {}})) {}

JuxtaFilms::~JuxtaFilms() = default;

Result<Picture> JuxtaFilms::picture(std::size_t row, std::int64_t frame) {
    const auto path = inner_->pathOf(inner_->sheet.rows[row].entry.clip);
    auto& reader = inner_->films[path.string()];
    if (!reader) {
        auto opened = Reader::open(path, {}, inner_->stop);
        if (!opened) return opened.error();
        reader = std::move(*opened);
    }
    return reader->picture(FrameNumber{frame}, inner_->stop);
}

Status mayLeave(Store& store, const JuxtaSheet& sheet, Date today) {
    std::set<AthleteId> shown;
    for (const JuxtaRow& row : sheet.rows) shown.insert(row.entry.athlete);
    if (shown.size() < 2) return Done{};
    for (const AthleteId& id : shown) {
        auto athlete = store.athlete(id);
        if (!athlete) return athlete.error();
        if (allowedOn(*athlete, Use::Showing, today) == Allowed::Yes ||
            allowedOn(*athlete, Use::Model, today) == Allowed::Yes)
            continue;
        return fail(ErrorCode::Refused, whyNotAllowed(*athlete, Use::Showing, today));
    }
    return Done{};
}

Result<QImage> juxtaPicture(const Library& library, const JuxtaSheet& sheet, const Playbook& playbook,
                            const Words& words, std::stop_token stop,
                            const std::function<void(double)>& progress) {
    JuxtaFilms films(library, sheet, Stills::Exact, stop);
    const JuxtaPicture picture = [&](std::size_t row, std::int64_t frame) {
        return films.picture(row, frame);
    };
    return drawJuxta(sheet, playbook, picture, words, stop, progress);
}

} // namespace jg
