// One open review: edits with undo, saved after each, always assessed.
#pragma once

#include "base/date.h"
#include "base/ids.h"
#include "library/library.h"
#include "review/assess.h"
#include "review/edit.h"
#include "review/letter_model.h"
#include "review/own_error.h"

#include <QObject>

#include <memory>

namespace jg {

/// The review the window works on. Lives in the window's thread. Every edit is saved before changed() comes.
class ReviewSession : public QObject {
    Q_OBJECT
public:
    /// Opens the review of a submission, or begins one by the approach. Errors: NotFound, Damaged,
    /// WriteFailed.
    static Result<std::unique_ptr<ReviewSession>> open(Library& library, const Playbook& playbook,
                                                       const Clock& clock, IdSource& ids,
                                                       const SubmissionId& submission,
                                                       const std::string& approach = "load-and-drive");

    const Review& review() const { return review_; }
    const Athlete& athlete() const { return athlete_; }
    const Submission& submission() const { return submission_; }
    const Clip& clip() const { return clip_; }
    const Assessment& assessment() const { return assessment_; }
    const Playbook& playbook() const { return playbook_; }
    Library& library() { return library_; }
    const Clock& clock() const { return clock_; }
    IdSource& ids() { return ids_; }
    bool pain() const { return !submission_.pain.empty(); }
    int age() const { return athlete_.ageOn(clock_.today()); }
    House house() const;
    LetterModel letter() const;
    /// Standard error of a click on a landmark in this film, by the coach's own exercise.
    double clickSigmaPx(Landmark landmark) const;

    /// Assesses anew and tells: after an edit, or when the playbook changed.
    void assessAnew();
    /// Applies, saves, assesses. Errors: those of saving; then the edit is taken back.
    Status perform(const Edit& edit);
    void beginGesture() { history_.beginGesture(); }
    void endGesture() { history_.endGesture(); }
    bool undo();
    bool redo();
    const History& history() const { return history_; }
    /// Where the coach is in the walk; saved, not part of undo.
    Status setStage(Stage stage);
    /// Takes a delivery of this submission in hand by its film and where it lies there (nothing = all of the
    /// film): one of the review, or else a new one. What is marked on the others stays with them. A film from
    /// another side is taken to show the pitch in hand. Errors: NotFound, Refused once sent, those of saving.
    Status lookAt(const ClipId& clip, std::optional<FrameSpan> cut);
    /// Takes a delivery of the review in hand; saved, not part of undo. Nothing happens without one of that
    /// number.
    void takeInHand(int delivery);
    /// The numbers of the deliveries with something marked on them and of the one in hand, rising.
    std::vector<int> deliveries() const;
    /// What the delivery in hand shows: the same pitch as another film, or one of its own.
    Status setPitch(int pitch);
    /// Sets a key position or refuses in words when the order would break.
    Status setMoment(Moment moment, std::int64_t frame);
    /// Says where on the film the delivery in hand lies; nothing = all of it. Errors: Refused when a position
    /// lies outside it, those of saving.
    Status setCut(std::optional<FrameSpan> cut);
    /// Keeps how a mail of this review ended, in the outbox and, once it went out, in the review.
    Status settle(const OutboxItem& item, const Status& result);

Q_SIGNALS:
    void changed();
    void saved(const QString& timeOfDay);
    void refused(const QString& sentence);

private:
    ReviewSession(Library& library, const Playbook& playbook, const Clock& clock, IdSource& ids);
    Status load(const SubmissionId& submission, const std::string& approach);
    Status save();

    Library& library_;
    const Playbook& playbook_;
    const Clock& clock_;
    IdSource& ids_;
    Review review_;
    Athlete athlete_;
    Submission submission_;
    Clip clip_;
    Assessment assessment_;
    History history_;
    std::vector<ErrorRun> errorRuns_;
};

} // namespace jg
