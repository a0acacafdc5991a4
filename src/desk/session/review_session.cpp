// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/review_session.h"

#include "desk/intake/intake.h"
#include "desk/keeping/house_settings.h"
#include "desk/keeping/known_veils.h"
#include "desk/own/own_error_exercise.h"
#include "desk/session/begin_judging.h"
#include "desk/session/beside.h"
#include "desk/session/juxta.h"
#include "desk/session/since.h"
#include "desk/session/suggest.h"
#include "film/film_info.h"

#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "review/record/deliveries.h"
#include "review/record/positions.h"
#include "review/tell/letter_sentences.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace jg {

ReviewSession::ReviewSession(Library& library, const Playbook& playbook, const Clock& clock, IdSource& ids)
    : library_(library)
    , live_(playbook)
    , clock_(clock)
    , ids_(ids) {}

Result<std::unique_ptr<ReviewSession>> ReviewSession::open(Library& library, const Playbook& playbook,
                                                           const Clock& clock, IdSource& ids,
                                                           const SubmissionId& submission,
                                                           const MakeKeeper& makeKeeper) {
    auto found = library.reviewOf(submission);
    if (!found) return found.error();
    std::unique_ptr<ReviewSession> session(new ReviewSession(library, playbook, clock, ids));
    if (auto loaded = session->load(std::move(*found), submission, makeKeeper); !loaded)
        return loaded.error();
    return session;
}

Result<std::unique_ptr<ReviewSession>> ReviewSession::open(Library& library, const Playbook& playbook,
                                                           const Clock& clock, IdSource& ids,
                                                           const ReviewId& review,
                                                           const MakeKeeper& makeKeeper) {
    auto found = library.review(review);
    if (!found) return found.error();
    std::unique_ptr<ReviewSession> session(new ReviewSession(library, playbook, clock, ids));
    const SubmissionId submission = found->submission;
    if (auto loaded = session->load(std::move(*found), submission, makeKeeper); !loaded)
        return loaded.error();
    return session;
}

Status ReviewSession::loadPeople(const SubmissionId& id) {
    auto submission = library_.submission(id);
    if (!submission) return submission.error();
    if (submission->clips.empty())
        return fail(ErrorCode::NotFound, msg("review-session.this-submission-holds-no-film"));
    auto athlete = library_.athlete(submission->athlete);
    if (!athlete) return athlete.error();
    auto pain = library_.painOf(submission->athlete);
    if (!pain) return pain.error();
    std::erase_if(*pain, [](const Submission& s) { return !s.painOpen(); });
    submission_ = std::move(*submission);
    athlete_ = std::move(*athlete);
    openPain_ = std::move(*pain);
    return Done{};
}

Status ReviewSession::begin(const SubmissionId& submission) {
    review_.id = ids_.next<ReviewTag>("rev");
    review_.submission = submission;
    review_.athlete = athlete_.id;
    review_.date = clock_.today();
    review_.first().clip = submission_.clips.front().id;
    auto hidden = KnownVeils(library_).on(submission_.clips.front(), athlete_.id, review_.id);
    if (!hidden) return hidden.error();
    review_.first().veils = std::move(*hidden);
    if (const double tall = athlete_.heightOn(review_.date); tall > 0)
        review_.first().scales[ScaleKind::Height] = ScaleMark{0, {}, {}, tall};
    review_.first().conditions = Conditions{submission_.start, submission_.surface, {}, {}, {}, {}, {}};
    if (auto judged = judgeWhatIsNot(); !judged) return judged;
    if (library_.readOnly()) return Done{};
    auto revision = library_.save(review_, nullptr);
    if (!revision) return revision.error();
    review_.revision = *revision;
    return Done{};
}

/// A review that is new, or began anew after damage, has no way of judging yet.
Status ReviewSession::judgeWhatIsNot() {
    if (review_.sent || !review_.approach().id.empty()) return Done{};
    const Approach* approach = approachFor(live_, athlete_);
    if (!approach) return fail(ErrorCode::NotFound, msg("review-session.the-playbook-has-no-approach"));
    review_.judging().approach = withTargetsOf(*approach, athlete_);
    if (library_.readOnly()) return Done{}; // it can be looked at
    auto judging = beginJudging(library_, live_, *approach, athlete_, review_.date);
    if (!judging) return judging.error();
    review_.judging() = std::move(*judging);
    return Done{};
}

Status ReviewSession::thaw() {
    const std::string& hash = review_.judging().playbook;
    thawed_ = hash;
    book_ = live_;
    if (hash.empty()) return Done{};
    auto text = library_.playbookText(hash);
    if (!text) return text.error();
    auto thawed = thawPlaybook(live_, *text);
    if (!thawed) return thawed.error();
    book_ = std::move(*thawed);
    return Done{};
}

void ReviewSession::readSentResults() {
    if (!review_.sent) return;
    if (auto kept = library_.results(review_.id)) sentResults_ = std::move(*kept);
}

Status ReviewSession::load(std::optional<Review> found, const SubmissionId& submission,
                           const MakeKeeper& makeKeeper) {
    if (auto people = loadPeople(submission); !people) return people;
    if (found)
        review_ = std::move(*found);
    else if (auto begun = begin(submission); !begun)
        return begun;
    if (auto judged = judgeWhatIsNot(); !judged) return judged;
    if (auto thawed = thaw(); !thawed) return thawed;
    readSentResults();
    settingsChanged();
    keeper_ = makeKeeper ? makeKeeper(library_, review_.revision)
                         : std::make_unique<DirectKeeper>(library_, review_.revision);
    connect(keeper_.get(), &ReviewKeeper::changed, this, &ReviewSession::keepChanged);
    assessAnew(Parts::all()); // nobody listens yet
    return Done{};
}

void ReviewSession::settingsChanged() {
    letter_.reset();
    coach_ = library_.setting("house.coach", english()(msg("house.coach")));
    // A record that can't be read only takes away the finer error.
    if (auto runs = errorRuns(library_)) errorRuns_ = *std::move(runs);
}

House ReviewSession::house() const {
    return {library_.setting("house.place", english()(msg("house.place"))), coach_,
            library_.setting("mail.from", ""), houseMark(library_), jg::guidanceConfirmed(library_)};
}

/// One that can't be read only takes the looking back away.
const LookBack* ReviewSession::lookBack() const {
    if (!back_) {
        const auto all = library_.reviewsOf(athlete_.id);
        auto found = all ? lookBackFrom(library_, live_, athlete_, *all, review_.id, review_.date)
                         : Result<std::optional<LookBack>>(all.error());
        back_ = found && *found ? std::make_shared<const LookBack>(std::move(**found)) : nullptr;
    }
    return back_->get();
}

/// A delivery of this review as it is compared with others.
JuxtaEntry ReviewSession::entryOf(int delivery) const {
    const int number = review_.deliveryOr(delivery).number;
    return juxtaEntryOf(
        review_, number, athlete_, submission_.clips,
        number == told_.delivery ? told_ : assess(review_, book_, submission_.clips, athlete_.hand, number),
        definitionsOf(book_));
}

Result<std::shared_ptr<const ThenAndNow>> ReviewSession::beside(const Stop& stop) const {
    if (!stop.beside) return std::shared_ptr<const ThenAndNow>();
    if (stop.beside->review == review_.id)
        return std::make_shared<const ThenAndNow>(
            ThenAndNow{entryOf(stop.beside->delivery), entryOf(stop.delivery)});
    auto& read = besides_[{stop.beside->review, stop.beside->delivery}];
    if (!read)
        read = std::make_shared<const Result<JuxtaEntry>>(
            besideEntry(library_, live_, athlete_.id, *stop.beside));
    if (!*read) return read->error();
    return std::make_shared<const ThenAndNow>(ThenAndNow{**read, entryOf(stop.delivery)});
}

Veils ReviewSession::hiddenOn(const DeliveryMarks& delivery) const {
    const Clip& film = filmOf(delivery, submission_.clips);
    Veils all = delivery.veils;
    for (const DeliveryMarks& d : review_.deliveries)
        if (d.number != delivery.number && filmOf(d, submission_.clips).mediaHash == film.mediaHash)
            for (const auto& [id, veil] : d.veils) all[std::to_string(d.number) + "-" + id] = veil;
    auto known = elsewhere_.find(film.mediaHash);
    if (known == elsewhere_.end()) {
        auto read = KnownVeils(library_).on(film, athlete_.id, review_.id);
        known = elsewhere_.emplace(film.mediaHash, read ? std::move(*read) : Veils{}).first;
    }
    all.insert(known->second.begin(), known->second.end());
    return all;
}

const Words& ReviewSession::readersWords() const {
    return wordsOf(idOf(athlete_.language));
}

Status ReviewSession::setLanguage(Language language) {
    auto now = library_.change(athlete_.id, [&](Athlete& a) -> Status {
        a.language = language;
        return Done{};
    });
    if (!now) return now.error();
    athlete_ = *std::move(now);
    letter_.reset();
    return Done{};
}

const LetterModel& ReviewSession::letter() const {
    if (letter_) return *letter_;
    Review told = review_; // its language may have been changed since the plan was made
    told.plan =
        inReadersLanguage({book_, review_, told_, athlete_, submission_, clip_, clock_.today(), pain()});
    LetterModel letter = writeLetter(told, book_, told_, athlete_, submission_, house(), pain());
    if (const LookBack* back = lookBack()) {
        tellSince(letter, book_, back->name, back->when, becameOf(*back, entryOf(review_.leading())));
    }
    for (const Stop& stop : review_.stops)
        if (const auto both = beside(stop); both && *both)
            tellBeside(letter, book_, stop, **both, overruledOf(athlete_));
    putOwnSentences(letter, review_.plan.sentences);
    return letter_.emplace(std::move(letter));
}

double ReviewSession::clickSigmaPx(Landmark landmark, double smearPx) const {
    const double click =
        jg::clickSigmaPx(errorRuns_, coach_, landmark, clip_.height > 0 ? clip_.height : kErrorHeightPx);
    return std::hypot(click, smearPx / std::sqrt(12.0)); // the deviation of an even spread
}

void ReviewSession::keep() {
    unkept_ = history_.inGesture();
    if (!unkept_) keeper_->keep(review_, told_);
}

void ReviewSession::endGesture() {
    history_.endGesture();
    if (unkept_) keep();
}

void ReviewSession::keepAndTell(Parts parts) {
    assessNow();
    keep();
    Q_EMIT changed(parts);
}

void ReviewSession::assessAnew(Parts parts) {
    assessNow();
    Q_EMIT changed(parts);
}

void ReviewSession::assessNow() {
    letter_.reset();
    // Another judging came, or went by undo.
    if (review_.judging().playbook != thawed_ && !thaw()) book_ = live_;
    book_ = withOwnFindings(std::move(book_), review_);
    clip_ = filmOf(delivery(), submission_.clips);
    assessment_ = assess(review_, book_, submission_.clips, athlete_.hand, inHand());
    if (sentResults_)
        told_ = *sentResults_;
    else if (inHand() == review_.leading())
        told_ = assessment_;
    else
        told_ = assess(review_, book_, submission_.clips, athlete_.hand);
    if (sentResults_ && inHand() == told_.delivery) assessment_ = told_;
}

void ReviewSession::playbookChanged() {
    // It was read when the review was opened; what is new is added to it.
    if (auto thawed = thaw(); !thawed) book_ = live_;
    assessAnew(Part::Playbook);
}

Status ReviewSession::peopleChanged() {
    const auto before = std::tie(athlete_, submission_, openPain_);
    const std::tuple<Athlete, Submission, std::vector<Submission>> was = before;
    auto read = loadPeople(submission_.id);
    elsewhere_.clear();
    if (was != before) {
        besides_.clear(); // another's consent or hidden people may have changed with them
        assessAnew(Part::People);
    }
    return read;
}

Status ReviewSession::mayEdit() const {
    if (review_.sent) return fail(ErrorCode::Refused, msg("review-session.sent-stays"));
    if (const Status may = library_.mayWrite(); !may) return may;
    if (held_) return fail(ErrorCode::Refused, msg("review-session.the-letter-is-being-sent-wait"));
    if (keepState() == KeepState::Elsewhere) return keepError();
    return Done{};
}

Status ReviewSession::setFilm(View view, double statedFps) {
    if (auto may = mayEdit(); !may) return may;
    const auto kept = library_.change(submission_.id, clip_.id, [&](Clip& c) -> Status {
        c.view = view;
        if (statedFps > 0) c.captureFps = statedFps, c.captureSource = idOf(RateSource::Stated);
        return Done{};
    });
    return kept ? peopleChanged() : Status(kept.error());
}

Status ReviewSession::lookedAgain(const ClipId& clip, const LookedAt& looked) {
    if (auto may = mayEdit(); !may) return may;
    const auto kept = library_.change(submission_.id, clip, [&](Clip& c) -> Status {
        putFacts(c, looked);
        return Done{};
    });
    return kept ? peopleChanged() : Status(kept.error());
}

Status ReviewSession::perform(const Edit& edit) {
    if (auto may = mayEdit(); !may) return may;
    if (!canApply(review_, edit)) return fail(ErrorCode::Refused, msg("review-session.delivery-gone"));
    history_.perform(review_, edit);
    keepAndTell(partsOf(edit));
    return Done{};
}

Status ReviewSession::perform(const Message& label, std::vector<Change> changes) {
    return perform({label, std::move(changes), inHand()});
}

bool ReviewSession::stepped(Parts parts, std::optional<int> delivery) {
    if (!delivery) return false;
    const bool another = review_.delivery(*delivery) && inHand() != *delivery;
    if (another) inHand_ = *delivery;
    keepAndTell(another ? parts | Part::Film : parts);
    return true;
}

bool ReviewSession::undo() {
    const Parts parts = history_.undoParts(); // the step is another one afterwards
    return stepped(parts, mayEdit() ? history_.undo(review_) : std::nullopt);
}

bool ReviewSession::redo() {
    const Parts parts = history_.redoParts();
    return stepped(parts, mayEdit() ? history_.redo(review_) : std::nullopt);
}

void ReviewSession::setStage(Stage stage) {
    if (!mayEdit() || review_.stage == stage) return;
    review_.stage = stage;
    keep();
}

Status ReviewSession::lookAt(const ClipId& id, std::optional<FrameSpan> cut) {
    const auto& clips = submission_.clips;
    const auto clip = std::find_if(clips.begin(), clips.end(), [&](const Clip& c) { return c.id == id; });
    if (clip == clips.end()) return fail(ErrorCode::NotFound, msg("review-session.strange-film"));
    const DeliveryMarks& now = delivery();
    if (now.clip == id && now.cut == cut) return Done{};
    for (const DeliveryMarks& d : review_.deliveries)
        if (d.clip == id && d.cut == cut) return takeInHand(d.number), Done{};
    if (now.clip == id && (now.blank() || (cut && !now.cut && mayCut(now, *cut)))) return setCut(cut);
    const DeliveryMarks fresh = nextDelivery(review_, now.number, *clip, cut, clips);
    const Edit edit{
        msg("review-session.look-at-another-delivery"), {SetDelivery{fresh.number, fresh}}, fresh.number};
    if (auto done = perform(edit); !done) return done;
    takeInHand(fresh.number);
    return Done{};
}

void ReviewSession::takeInHand(int number) {
    if (number == inHand() || !review_.delivery(number)) return;
    inHand_ = number;
    assessAnew(Part::Film);
}

std::vector<int> ReviewSession::deliveries() const {
    std::vector<int> numbers;
    for (const DeliveryMarks& d : review_.deliveries)
        if (!d.blank() || d.number == inHand()) numbers.push_back(d.number);
    return numbers;
}

Status ReviewSession::setPitch(int pitch) {
    return perform(msg("review-session.say-which-pitch-it-shows"), {SetPitch{pitch}});
}

Status ReviewSession::setMoment(Moment moment, std::int64_t frame) {
    if (auto may = mayLieAt(delivery(), moment, frame, clip_.frames); !may) return may;
    const auto before = delivery().moments.find(moment);
    const MomentMark mark = before == delivery().moments.end() ? MomentMark{} : before->second;
    return perform(msg("edit.set-position", {{"position", info(moment).name()}}),
                   {SetMoment{moment, movedTo(mark, frame)}});
}

Status ReviewSession::setAgain(Moment moment, std::int64_t frame) {
    const auto mark = happeningAgain(delivery(), moment, frame, clip_.frames);
    if (!mark) return mark.error();
    return perform(msg("edit.position-again", {{"position", info(moment).name()}}),
                   {SetMoment{moment, *mark}});
}

Status ReviewSession::setCut(std::optional<FrameSpan> cut) {
    if (cut)
        if (auto may = mayCut(delivery(), *cut); !may) return may;
    return perform(cut ? msg("edit.cut") : msg("edit.whole-film"), {SetCut{cut}});
}

Evidence ReviewSession::evidenceFor(const std::string& item, std::optional<std::int64_t> frame) const {
    Evidence e{frame, {}, clock_.nowUnix()};
    for (const Cause& cause : book_.causes) {
        if (cause.from != item && cause.to != item) continue;
        const MeasureRow* row = assessment_.measure(cause.from == item ? cause.to : cause.from);
        if (row && row->value.value)
            e.numbers.push_back({row->id, *row->value.value, row->value.sd, row->value.unit});
    }
    return e;
}

Status ReviewSession::grade(const std::string& item, std::optional<Grade> grade,
                            std::optional<std::int64_t> frame) {
    const GradedItem* known = book_.item(item);
    const std::string name = known ? known->name : item;
    if (grade) grade->evidence = evidenceFor(item, frame);
    return perform(grade ? msg("edit.grade", {{"item", name}}) : msg("edit.ungrade"),
                   {SetGrade{0, {inHand(), item}, std::move(grade)}});
}

Status ReviewSession::setTarget(const std::string& measure, std::optional<Target> target, bool forAthlete) {
    if (auto may = mayEdit(); !may) return may;
    if (forAthlete) {
        auto now = library_.change(athlete_.id, [&](Athlete& a) -> Status {
            std::erase_if(a.targets, [&](const Target& t) { return t.measure == measure; });
            if (target) a.targets.push_back(*target);
            return Done{};
        });
        if (!now) return now.error();
        athlete_ = *std::move(now);
    }
    return perform(msg("edit.target"), {SetTarget{0, measure, std::move(target)}});
}

Status ReviewSession::judgeBy(const std::string& id, const FocusCard* focus) {
    if (auto may = mayEdit(); !may) return may;
    const Approach* approach = live_.approach(id);
    if (!approach)
        return fail(ErrorCode::NotFound, msg("review-session.no-such-approach", {{"approach", id}}));
    auto judging =
        beginJudging(library_, live_, focus ? focused(*approach, *focus) : *approach, athlete_, review_.date);
    if (!judging) return judging.error();
    judging->grades = review_.judging().grades;
    takeOver(*judging, setForReview(book_, review_.judging(), athlete_), focus);
    return perform(msg("edit.judge-by", {{"approach", judging->approach.name}}),
                   {SetJudging{0, std::move(*judging)}});
}

Assessment ReviewSession::assessedBy(const Approach& approach) const {
    Review other = review_;
    other.judging().approach = withTargetsOf(approach, athlete_);
    return assess(other, withOwnFindings(live_, other), submission_.clips, athlete_.hand, inHand());
}

std::vector<Contradiction> ReviewSession::contradictions() const {
    return contradictionsIn(review_, book_, told_, athlete_.hand);
}

Status ReviewSession::reload() {
    keeper_->flush();
    if (keepState() == KeepState::NotKept) return keepError(); // what is not on the disk yet is not dropped
    auto now = library_.review(review_.id);
    if (!now) return now.error();
    if (auto on = keeper_->rebase(now->revision); !on) return on;
    review_ = std::move(*now);
    readSentResults();
    assessAnew(Parts::all());
    return Done{};
}

Status ReviewSession::beginAnother() {
    back_.reset();
    letter_.reset();
    keeper_->flush();
    if (keepState() == KeepState::NotKept) return keepError();
    Review next;
    next.id = ids_.next<ReviewTag>("rev");
    next.submission = review_.submission;
    next.athlete = review_.athlete;
    next.date = clock_.today();
    next.stage = Stage::Positions;
    next.deliveries = review_.deliveries;
    next.lead = review_.lead;
    next.extras = review_.extras;
    next.own = review_.own;
    if (const Approach* newest = live_.approach(review_.approach().id)) {
        auto judging = beginJudging(library_, live_, *newest, athlete_, next.date);
        if (!judging) return judging.error();
        next.judging() = std::move(*judging);
    } else { // it left the playbook: what it was then still stands
        next.judging().approach = review_.approach();
        next.judging().playbook = review_.judging().playbook;
        next.judging().age = athlete_.ageOn(next.date);
    }
    auto revision = library_.save(next, nullptr);
    if (!revision) return revision.error();
    next.revision = *revision;
    review_ = std::move(next);
    sentResults_.reset();
    history_ = History{};
    if (auto on = keeper_->rebase(*revision); !on) return on;
    if (auto thawed = thaw(); !thawed) return thawed;
    keepAndTell(Parts::all());
    return Done{};
}

} // namespace jg
