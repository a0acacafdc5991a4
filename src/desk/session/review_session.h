// SPDX-License-Identifier: GPL-3.0-or-later
// One review being worked on: every edit assessed at once and handed to the disk.
#pragma once

#include "base/clock.h"
#include "base/date.h"
#include "base/ids.h"
#include "desk/session/review_keeper.h"
#include "library/library.h"
#include "review/assess/assess.h"
#include "review/assess/contradictions.h"
#include "review/record/edit.h"
#include "review/record/own_error.h"
#include "review/tell/letter_model.h"
#include "words/words.h"

#include <QObject>

#include <functional>
#include <map>
#include <memory>
#include <utility>

namespace jg {

struct JuxtaEntry;
struct LookBack;
struct LookedAt;
struct ThenAndNow;

/// Makes what keeps a review that was read at a revision.
using MakeKeeper = std::function<std::unique_ptr<ReviewKeeper>(Library&, std::int64_t revision)>;

/// The review the window works on, and which of its deliveries is in hand. Lives in the window's thread.
/// Every edit goes to the keeper before changed() comes.
class ReviewSession : public QObject {
    Q_OBJECT
public:
    /// Opens the newest review of a submission, or begins one by the athlete's approach. `makeKeeper` is a
    /// DirectKeeper's when it is empty. Errors: NotFound, Damaged, WriteFailed.
    static Result<std::unique_ptr<ReviewSession>> open(Library& library, const Playbook& playbook,
                                                       const Clock& clock, IdSource& ids,
                                                       const SubmissionId& submission,
                                                       const MakeKeeper& makeKeeper = {});
    /// A review by its id, were it the newest or not.
    static Result<std::unique_ptr<ReviewSession>> open(Library& library, const Playbook& playbook,
                                                       const Clock& clock, IdSource& ids,
                                                       const ReviewId& review,
                                                       const MakeKeeper& makeKeeper = {});

    const Review& review() const { return review_; }
    /// The delivery in hand.
    const DeliveryMarks& delivery() const { return review_.deliveryOr(inHand_); }
    int inHand() const { return delivery().number; }
    const Athlete& athlete() const { return athlete_; }
    const Submission& submission() const { return submission_; }
    /// The film of the delivery in hand.
    const Clip& clip() const { return clip_; }
    /// Who is hidden on a delivery's film: in it, in others of this review and in the athlete's other
    /// reviews, which are read once. One that can't be read hides nobody here, and forbids sending.
    Veils hiddenOn(const DeliveryMarks& delivery) const;
    /// As seen from the delivery in hand.
    const Assessment& assessment() const { return assessment_; }
    /// As the letter tells it: from the review's lead. What was sent keeps its results as they were computed.
    const Assessment& told() const { return told_; }
    /// The playbook this review was begun with.
    const Playbook& playbook() const { return book_; }
    Library& library() const { return library_; }
    const Clock& clock() const { return clock_; }
    IdSource& ids() const { return ids_; }
    /// Open reports of pain of the athlete, whatever film they came with, the newest first.
    const std::vector<Submission>& openPain() const { return openPain_; }
    bool pain() const { return !openPain_.empty(); }
    int age() const { return athlete_.ageOn(clock_.today()); }
    House house() const;
    /// Made once for a state of the review.
    const LetterModel& letter() const;
    /// The language of what is sent to this athlete.
    const Words& readersWords() const;
    /// Kept on the athlete. Errors: those of Store.
    Status setLanguage(Language language);
    /// The delivery of another day beside a stop and the stop's own, as they are now; null for a stop that
    /// stands alone. The other is read once. Errors: those of besideEntry().
    Result<std::shared_ptr<const ThenAndNow>> beside(const Stop& stop) const;
    /// Standard error of a click on a landmark in this film, by the coach's own exercise; of one in a smear
    /// so many pixels long the joint may lie anywhere in it alike.
    double clickSigmaPx(Landmark landmark, double smearPx = 0) const;

    /// The library's playbook has changed: assesses anew and tells.
    void playbookChanged();
    /// The athlete or the submission was changed in the library: reads them again, and tells when they are
    /// others now. Errors: those of reading.
    Status peopleChanged();
    /// Other reviews were changed: who is hidden in them is read again when it is asked for.
    void othersChanged() { elsewhere_.clear(); }
    /// Settings or the measurements of the coach's own error were changed: reads them again.
    void settingsChanged();
    /// Says what the film in hand shows and at which rate it was taken (0 = as it was found); no part of
    /// undo. Errors: Refused as perform(), those of Store.
    Status setFilm(View view, double statedFps);
    /// Applies, assesses, hands over to be kept. Errors: Refused for a review that was sent, one that was
    /// changed elsewhere, a library that can only be read, or a delivery that is no longer there.
    Status perform(const Edit& edit);
    /// The same for the delivery in hand.
    Status perform(const Message& label, std::vector<Change> changes);
    /// A drag: kept once, when it ends.
    void beginGesture() { history_.beginGesture(); }
    void endGesture();
    bool undo();
    bool redo();
    const History& history() const { return history_; }
    KeepState keepState() const { return keeper_->state(); }
    const Error& keepError() const { return keeper_->error(); }
    /// Waits until what is on its way is on the disk, or can't be written now.
    void settle() { keeper_->flush(); }
    /// Gives the keeper away when the session ends while something is on its way.
    std::unique_ptr<ReviewKeeper> takeKeeper() { return std::move(keeper_); }

    /// Where the coach is in the walk; kept, not part of undo.
    void setStage(Stage stage);
    /// Keeps what a new look at the film in hand found. Errors: as perform(), those of Store.
    Status lookedAgain(const ClipId& clip, const LookedAt& looked);
    /// Takes a delivery of this submission in hand by its film and where it lies there (nothing = all of the
    /// film): one of the review, or else a new one. What is marked on the others stays with them. A film from
    /// another side is taken to show the pitch in hand. Errors: NotFound, those of perform().
    Status lookAt(const ClipId& clip, std::optional<FrameSpan> cut);
    /// Takes a delivery of the review in hand. Nothing happens without one of that number.
    void takeInHand(int delivery);
    /// The numbers of the deliveries with something marked on them and of the one in hand, rising.
    std::vector<int> deliveries() const;
    /// What the delivery in hand shows: the same pitch as another film, or one of its own.
    Status setPitch(int pitch);
    /// Sets a key position or refuses in words when the order would break.
    Status setMoment(Moment moment, std::int64_t frame);
    /// Says that a position happened on this frame too, or no longer.
    Status setAgain(Moment moment, std::int64_t frame);
    /// Says where on the film the delivery in hand lies; nothing = all of it. Errors: Refused when a position
    /// lies outside it, those of perform().
    Status setCut(std::optional<FrameSpan> cut);
    /// Grades an item on the delivery in hand, with what it was judged on; nothing takes the grade away.
    Status grade(const std::string& item, std::optional<Grade> grade, std::optional<std::int64_t> frame);
    /// What a measure is judged by in this review; nothing leaves it recorded. For the athlete: from now on
    /// in every new review too, with who set it and why. Errors: those of perform() and of Store.
    Status setTarget(const std::string& measure, std::optional<Target> target, bool forAthlete = false);
    /// Judges by another approach, or by a part of it: what both ask keeps its grade, what was measured
    /// stays. A step of undo. Errors: NotFound, those of perform() and of Store.
    Status judgeBy(const std::string& approach, const FocusCard* focus = nullptr);
    /// The library's playbook as it is now, with all approaches that can be chosen.
    const Playbook& livePlaybook() const { return live_; }
    /// The same deliveries by another approach of the library's playbook; grades of shared items count. Pure.
    Assessment assessedBy(const Approach& approach) const;
    /// What the review says twice and differently, as the letter would tell it.
    std::vector<Contradiction> contradictions() const;
    /// While its letter goes out nothing is changed.
    void hold(bool on) { held_ = on; }
    /// Waits until it is kept and reads it again: another use case wrote it. Errors: those of reading.
    Status reload();
    /// Begins a new review of the same deliveries by today's playbook; the one before stays as it is. Undo
    /// begins anew. Errors: those of Store.
    Status beginAnother();

Q_SIGNALS:
    void changed(jg::Parts parts); ///< what of it is another now
    void keepChanged();            ///< keepState()

private:
    ReviewSession(Library& library, const Playbook& playbook, const Clock& clock, IdSource& ids);
    Status load(std::optional<Review> found, const SubmissionId& submission, const MakeKeeper& makeKeeper);
    Status loadPeople(const SubmissionId& submission);
    Status begin(const SubmissionId& submission);
    Status judgeWhatIsNot();
    Status thaw();
    void readSentResults();
    const LookBack* lookBack() const;
    JuxtaEntry entryOf(int delivery) const;
    Status mayEdit() const;
    void keep();
    void assessNow();
    /// After a step of the history: its delivery is in hand. False without a step.
    bool stepped(Parts parts, std::optional<int> delivery);
    void assessAnew(Parts parts);  ///< and tells
    void keepAndTell(Parts parts); ///< assessed, on its way to the disk, told: in this order
    Evidence evidenceFor(const std::string& item, std::optional<std::int64_t> frame) const;

    Library& library_;
    const Playbook& live_; ///< the library's, as it is now
    const Clock& clock_;
    IdSource& ids_;
    Playbook book_;
    std::string thawed_; ///< which frozen playbook it is
    Review review_;
    int inHand_ = 0;
    Athlete athlete_;
    Submission submission_;
    std::vector<Submission> openPain_;
    Clip clip_;
    Assessment assessment_, told_;
    std::optional<Assessment> sentResults_;
    /// What this review is compared with, read when a letter is first asked for; null = nothing.
    mutable std::optional<std::shared_ptr<const LookBack>> back_;
    /// Other deliveries beside stops, by review and delivery.
    mutable std::map<std::pair<ReviewId, int>, std::shared_ptr<const Result<JuxtaEntry>>> besides_;
    mutable std::map<std::string, Veils> elsewhere_; ///< of other reviews, by film
    mutable std::optional<LetterModel> letter_;      ///< of what the review is now
    History history_;
    std::vector<ErrorRun> errorRuns_;
    std::string coach_; ///< whose clicks these are
    std::unique_ptr<ReviewKeeper> keeper_;
    bool held_ = false;
    bool unkept_ = false; ///< changed within a gesture that has not ended
};

} // namespace jg
