#include "desk/review_session.h"

#include "desk/dispatch.h"
#include "desk/own_error_exercise.h"

#include "review/deliveries.h"
#include "review/positions.h"

#include <algorithm>

namespace jg {

ReviewSession::ReviewSession(Library& library, const Playbook& playbook, const Clock& clock, IdSource& ids)
    : library_(library)
    , playbook_(playbook)
    , clock_(clock)
    , ids_(ids) {}

Result<std::unique_ptr<ReviewSession>> ReviewSession::open(Library& library, const Playbook& playbook,
                                                           const Clock& clock, IdSource& ids,
                                                           const SubmissionId& submission,
                                                           const std::string& approach) {
    std::unique_ptr<ReviewSession> session(new ReviewSession(library, playbook, clock, ids));
    if (auto loaded = session->load(submission, approach); !loaded) return loaded.error();
    return session;
}

Status ReviewSession::load(const SubmissionId& id, const std::string& approachId) {
    auto submission = library_.submission(id);
    if (!submission) return submission.error();
    submission_ = std::move(*submission);
    if (submission_.clips.empty()) return fail(ErrorCode::NotFound, "This submission holds no film.");
    auto athlete = library_.athlete(submission_.athlete);
    if (!athlete) return athlete.error();
    athlete_ = std::move(*athlete);
    auto found = library_.reviewOf(id);
    if (!found) return found.error();
    if (*found) {
        review_ = std::move(**found);
    } else {
        const Approach* approach = playbook_.approach(approachId);
        if (!approach)
            return fail(ErrorCode::NotFound, "The playbook has no approach \"" + approachId + "\".");
        review_.id = ids_.next<ReviewTag>("rev");
        review_.submission = id;
        review_.athlete = athlete_.id;
        review_.clip = submission_.clips.front().id;
        review_.date = clock_.today();
        review_.approach = *approach;
        if (auto stored = save(); !stored) return stored;
    }
    // A record that can't be read only takes away the finer error.
    if (auto runs = errorRuns(library_)) errorRuns_ = *std::move(runs);
    assessAnew(); // nobody listens yet
    return Done{};
}

House ReviewSession::house() const {
    return {library_.setting("house.place", "My place"), library_.setting("house.coach", "Your coach"),
            library_.setting("mail.from", "")};
}

LetterModel ReviewSession::letter() const {
    return writeLetter(review_, playbook_, assessment_, athlete_, submission_, house());
}

double ReviewSession::clickSigmaPx(Landmark landmark) const {
    return jg::clickSigmaPx(errorRuns_, house().coach, landmark,
                            clip_.height > 0 ? clip_.height : kErrorHeightPx);
}

Status ReviewSession::save() {
    auto stored = library_.save(review_);
    if (stored) Q_EMIT saved(QString::fromStdString(clock_.timeOfDay()));
    return stored;
}

void ReviewSession::assessAnew() {
    clip_ = filmOf(review_, submission_.clips);
    assessment_ = assess(review_, playbook_, submission_.clips, athlete_.hand);
    Q_EMIT changed();
}

Status ReviewSession::perform(const Edit& edit) {
    if (review_.sent)
        return fail(ErrorCode::Refused,
                    "This review was sent and stays as it was sent. Begin a new one to go on.");
    history_.perform(review_, edit);
    auto stored = save();
    if (!stored) {
        history_.undo(review_);
        Q_EMIT refused(QString::fromStdString(stored.error().text));
    }
    assessAnew();
    return stored;
}

bool ReviewSession::undo() {
    if (review_.sent || !history_.undo(review_)) return false;
    if (auto stored = save(); !stored) Q_EMIT refused(QString::fromStdString(stored.error().text));
    assessAnew();
    return true;
}

bool ReviewSession::redo() {
    if (review_.sent || !history_.redo(review_)) return false;
    if (auto stored = save(); !stored) Q_EMIT refused(QString::fromStdString(stored.error().text));
    assessAnew();
    return true;
}

Status ReviewSession::setStage(Stage stage) {
    if (review_.sent || review_.stage == stage) return Done{};
    review_.stage = stage;
    return save();
}

Status ReviewSession::lookAt(const ClipId& id, std::optional<FrameSpan> cut) {
    const auto& clips = submission_.clips;
    const auto clip = std::find_if(clips.begin(), clips.end(), [&](const Clip& c) { return c.id == id; });
    if (clip == clips.end()) return fail(ErrorCode::NotFound, "That film is not part of this submission.");
    if (review_.clip == id && review_.cut == cut) return Done{};
    for (const DeliveryMarks& d : review_.aside)
        if (d.clip == id && d.cut == cut) return takeInHand(d.number), Done{};
    if (review_.clip == id && (review_.blank() || (cut && !review_.cut && mayCut(review_, *cut))))
        return setCut(cut);
    const DeliveryMarks fresh = nextDelivery(review_, *clip, cut, clips);
    const Edit edit{"Look at another delivery", {SetAside{fresh.number, fresh}}};
    if (auto done = perform(edit); !done) return done;
    takeInHand(fresh.number);
    return Done{};
}

void ReviewSession::takeInHand(int delivery) {
    if (delivery == review_.number || !review_.delivery(delivery)) return;
    review_.takeInHand(delivery);
    if (!review_.sent)
        if (auto stored = save(); !stored) Q_EMIT refused(QString::fromStdString(stored.error().text));
    assessAnew();
}

std::vector<int> ReviewSession::deliveries() const {
    std::vector<int> numbers = {review_.number};
    for (const DeliveryMarks& d : review_.aside)
        if (!d.blank()) numbers.push_back(d.number);
    std::sort(numbers.begin(), numbers.end());
    return numbers;
}

Status ReviewSession::setPitch(int pitch) {
    return perform({"Say which pitch it shows", {SetPitch{pitch}}});
}

Status ReviewSession::setMoment(Moment moment, std::int64_t frame) {
    if (auto may = mayLieAt(review_, moment, frame, clip_.frames); !may) return may;
    return perform({"Set " + std::string(info(moment).name), {SetMoment{moment, MomentMark{frame, ""}}}});
}

Status ReviewSession::setCut(std::optional<FrameSpan> cut) {
    if (cut)
        if (auto may = mayCut(review_, *cut); !may) return may;
    return perform({cut ? "Review this delivery" : "Review the whole film", {SetCut{cut}}});
}

Status ReviewSession::settle(const OutboxItem& item, const Status& result) {
    auto stored = settleMail(library_, item, result, clock_);
    if (auto now = library_.review(review_.id)) review_ = std::move(*now);
    Q_EMIT changed();
    return stored;
}

} // namespace jg
