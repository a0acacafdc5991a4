// SPDX-License-Identifier: GPL-3.0-or-later
// What a library keeps in rows: edits against a revision, queries that return values.
#pragma once

#include "base/result.h"
#include "library/list_entries.h"
#include "library/outbox.h"
#include "review/assess/summary.h"
#include "review/record/athlete_edit.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A submission that waits for its answer, with whose it is and how far its newest review has come.
struct WaitingRow {
    Submission submission;
    Athlete athlete;
    std::optional<ReviewSummary> review;
};

/// An athlete in short.
struct AthleteRow {
    Athlete athlete;
    int reviews = 0;
    std::optional<Date> lastReview;
};

/// One review of an athlete with its submission and the results kept with it (nothing when none were).
struct ReviewOfAthlete {
    ReviewSummary summary;
    Submission submission;
    std::optional<Assessment> results;
    std::vector<DeliveryMarks> deliveries; ///< without paths and shake
    std::string approach;                  ///< its id

    /// Null for none of that number.
    const DeliveryMarks* delivery(int number) const {
        for (const DeliveryMarks& d : deliveries)
            if (d.number == number) return &d;
        return nullptr;
    }
};

/// A review as someone else had it when two wrote on the same revision. Nothing is ever overwritten blindly.
struct KeptVersion {
    std::int64_t row = 0;
    ReviewId review;
    std::int64_t base = 0;   ///< the revision it was made from
    std::int64_t atUnix = 0; ///< when it was refused
};

/// What is done to a row as it is now. An error leaves it as it was.
template <typename T>
using ChangeOf = std::function<Status(T&)>;

/// One setting as it was shown and as it shall be.
struct SettingChange {
    std::string key, was, now;
};

/// How often each table was changed, by any program: by the table's name.
using Pulse = std::map<std::string, std::int64_t>;

/// The seam behind which a library's rows lie. What is edited is changed, not saved: `change` reads the
/// newest row, applies what is to be done, checks it and writes it in one immediate transaction, so that
/// nothing another window wrote meanwhile is undone by a copy that was held. Only reviews are saved whole,
/// against the revision they were read at. Every write is one transaction: a killed process loses at most the
/// call in flight. Nothing above it knows how rows are kept. One thread owns a Store; several Stores, of one
/// or several processes, may be open on one library. Errors of all reads: Damaged, NotFound where one thing
/// is named. Of all writes: WriteFailed, DiskFull, Damaged, Refused in a library that can only be read.
class Store {
public:
    virtual ~Store() = default;

    virtual Result<std::vector<Athlete>> athletes() = 0;
    virtual Result<Athlete> athlete(const AthleteId& id) = 0;
    /// New athletes and edits of known ones (applyEdit), all or none. Errors: Refused for an id that is here
    /// or is none; NotFound and Stale of an edit.
    virtual Status add(const std::vector<Athlete>& athletes, const std::vector<AthleteEdit>& edits = {}) = 0;
    Status add(const Athlete& athlete) { return add(std::vector{athlete}); }
    /// The athlete as it is kept then. Their id stays. Errors: NotFound, those of `what`.
    virtual Result<Athlete> change(const AthleteId& id, const ChangeOf<Athlete>& what) = 0;
    virtual Result<int> athleteCount() = 0;
    /// By name; those whose name holds every word of `search` (letters of any case), all when it is empty.
    virtual Result<std::vector<AthleteRow>> athleteRows(const std::string& search = "") = 0;

    virtual Result<std::vector<Submission>> submissions() = 0;
    virtual Result<Submission> submission(const SubmissionId& id) = 0;
    /// An athlete that is not kept yet is kept in the same transaction. Errors: Refused for an id, also of a
    /// clip, that is here or is none, and for a mail that brought another one.
    virtual Status add(const Submission& submission, const Athlete* newAthlete = nullptr) = 0;
    /// The submission as it is kept then. Its id, athlete, clips and their films stay. Errors: NotFound,
    /// those of `what`.
    virtual Result<Submission> change(const SubmissionId& id, const ChangeOf<Submission>& what) = 0;
    /// One clip of it alike.
    Result<Submission> change(const SubmissionId& id, const ClipId& clip, const ChangeOf<Clip>& what);
    /// Submissions of an athlete that came with a report of pain, open or closed, the newest first.
    virtual Result<std::vector<Submission>> painOf(const AthleteId& athlete) = 0;
    /// What a mail brought; nothing when it was not taken in.
    virtual Result<std::optional<SubmissionId>> submissionOfMail(const std::string& mail) = 0;
    /// Whose films lie under a hash: one athlete's, unless an older version took one film in for two.
    virtual Result<std::vector<AthleteId>> athletesOfMedia(const std::string& hash) = 0;
    /// Submissions without an answer, in the order they came.
    virtual Result<std::vector<WaitingRow>> waiting() = 0;

    virtual Result<Review> review(const ReviewId& id) = 0;
    /// The newest review of a submission.
    virtual Result<std::optional<Review>> reviewOf(const SubmissionId& submission) = 0;
    /// In short, by date; the newest first when `newest` is more than 0, and at most so many.
    virtual Result<std::vector<ReviewSummary>> reviews(int newest = 0) = 0;
    virtual Result<std::vector<ReviewSummary>> sentSince(Date day) = 0;
    virtual Result<std::vector<ReviewOfAthlete>> reviewsOf(const AthleteId& athlete) = 0;
    /// Keeps a review against the revision it holds (0 = it is new) and returns its new revision. `told` is
    /// what it says, for lists and logs. Errors: Stale when it was changed elsewhere since; then this one is
    /// kept beside it as a version, and the kept one stays.
    virtual Result<std::int64_t> save(const Review& review, const Assessment* told = nullptr) = 0;
    /// What was kept of a review's results at its last save with some; nothing when there are none.
    virtual Result<std::optional<Assessment>> results(const ReviewId& id) = 0;
    /// Marks a review as sent as it went out, with its results; what was edited meanwhile is kept as a
    /// version of it. Errors: Refused when it is sent already, NotFound.
    virtual Status markSent(const Review& asSent, const Assessment* told, const SentRecord& sent) = 0;

    virtual Result<std::vector<KeptVersion>> versions(const ReviewId& review) = 0;
    /// The review as that version has it.
    virtual Result<Review> version(std::int64_t row) = 0;
    /// Puts a version in the place of its review, which becomes a version itself. Errors: NotFound, Refused
    /// when the review was sent.
    virtual Status takeVersion(std::int64_t row) = 0;

    virtual Result<std::vector<Promise>> promises() = 0;
    /// Open ones that are late, due by a day, or without a date.
    virtual Result<std::vector<Promise>> openPromises(Date dueBy) = 0;
    virtual Result<int> promisesDueAfter(Date day) = 0; ///< how many open ones
    virtual Result<std::vector<Promise>> promisesTo(const AthleteId& athlete) = 0;
    virtual Status add(const std::vector<Promise>& promises) = 0; ///< all or none
    Status add(const Promise& promise) { return add(std::vector{promise}); }
    /// The promise as it is kept then. Errors: NotFound, those of `what`.
    virtual Result<Promise> change(std::int64_t promise, const ChangeOf<Promise>& what) = 0;

    virtual Result<std::vector<OutboxItem>> outbox() = 0;

    /// What the lists of athletes, submissions and reviews left out since this was asked last: rows that
    /// can't be read hide no other, and are told. A report of pain is never left out: painOf() fails.
    virtual std::vector<Message> takeLeftOut() = 0;
    virtual Status add(const OutboxItem& item) = 0;
    /// One mail of the outbox. Errors: NotFound.
    virtual Result<OutboxItem> mail(const std::string& id) = 0;
    /// Errors: NotFound, those of `what`.
    virtual Result<OutboxItem> changeMail(const std::string& id, const ChangeOf<OutboxItem>& what) = 0;
    /// Whether a letter of a review may go out now. Errors: Refused when the review was sent, or when an
    /// earlier letter of it may have gone out, as far as `repeat` does not allow it; also while one is being
    /// handed over.
    virtual Status mayHandOver(const ReviewId& review, std::int64_t nowUnix, Repeat repeat) = 0;
    /// The same, and keeps the mail as being handed over: before its first byte goes out, so that of two who
    /// send at once one is refused.
    virtual Status beginHandOver(const OutboxItem& item, std::int64_t nowUnix, Repeat repeat) = 0;
    /// How many mails have not gone out.
    virtual Result<int> unsentMails() = 0;

    /// Keeps a playbook's text once, under its content hash, which is returned.
    virtual Result<std::string> keepPlaybook(const std::string& text) = 0;
    virtual Result<std::string> playbookText(const std::string& hash) = 0;

    virtual std::string setting(const std::string& key, const std::string& otherwise = "") = 0;
    virtual Status setSetting(const std::string& key, const std::string& value) = 0;
    /// All or none. Errors: Stale, naming it, for one that is neither as it was shown nor as it shall be.
    virtual Status changeSettings(const std::vector<SettingChange>& changes) = 0;

    /// The entries of a list, in the order they came.
    virtual Result<std::vector<ListEntry>> rows(ListOf list) = 0;
    /// Nothing when there is none of that key.
    virtual Result<std::optional<ListEntry>> row(ListOf list, const std::string& key) = 0;
    /// Adds an entry, or gives the one of that key another document, where it stands.
    virtual Status put(ListOf list, const std::string& key, const std::string& document) = 0;
    /// Nothing happens when there is none.
    virtual Status drop(ListOf list, const std::string& key) = 0;
    /// Several entries at once, by what the list holds now: those left out of it go, those with row 0 are
    /// added. Errors: those of `what`.
    virtual Status changeRows(ListOf list, const ChangeOf<std::vector<ListEntry>>& what) = 0;

    /// What has been changed until now, to see what another program did.
    virtual Result<Pulse> pulse() = 0;
    /// A number that changes when another store, of this program or another, has written; quick.
    virtual std::int64_t writesOfOthers() = 0;

    /// From now on nothing is written to this library by any program, or it is again: names are out of sight
    /// somewhere, and what is shown must not be kept. It ends with the store. Errors: Refused while a letter
    /// is being handed over, those of writing.
    virtual Status lookOnly(bool on) = 0;
    /// Why nothing is written here, if so. Errors: Refused.
    virtual Status mayWrite() const = 0;
    bool readOnly() const { return !mayWrite().ok(); }
};

} // namespace jg
