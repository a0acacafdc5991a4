// SPDX-License-Identifier: GPL-3.0-or-later
// The store as SQLite keeps it.
#pragma once

#include "library/look_lock.h"
#include "library/store.h"

#include <filesystem>
#include <functional>
#include <memory>

namespace SQLite {
class Database;
}

namespace jg {

class SqliteStore : public Store {
public:
    ~SqliteStore() override;

    Result<std::vector<Athlete>> athletes() override;
    Result<Athlete> athlete(const AthleteId& id) override;
    using Store::add;
    using Store::change;
    Status add(const std::vector<Athlete>& athletes, const std::vector<AthleteEdit>& edits = {}) override;
    Result<Athlete> change(const AthleteId& id, const ChangeOf<Athlete>& what) override;
    Result<int> athleteCount() override;
    Result<std::vector<AthleteRow>> athleteRows(const std::string& search = "") override;

    Result<std::vector<Submission>> submissions() override;
    Result<Submission> submission(const SubmissionId& id) override;
    Status add(const Submission& submission, const Athlete* newAthlete = nullptr) override;
    Result<Submission> change(const SubmissionId& id, const ChangeOf<Submission>& what) override;
    Result<std::vector<Submission>> painOf(const AthleteId& athlete) override;
    Result<std::optional<SubmissionId>> submissionOfMail(const std::string& mail) override;
    Result<std::vector<AthleteId>> athletesOfMedia(const std::string& hash) override;
    Result<std::vector<WaitingRow>> waiting() override;

    Result<Review> review(const ReviewId& id) override;
    Result<std::optional<Review>> reviewOf(const SubmissionId& submission) override;
    Result<std::vector<ReviewSummary>> reviews(int newest = 0) override;
    Result<std::vector<ReviewSummary>> sentSince(Date day) override;
    Result<std::vector<ReviewOfAthlete>> reviewsOf(const AthleteId& athlete) override;
    Result<std::int64_t> save(const Review& review, const Assessment* told = nullptr) override;
    Result<std::optional<Assessment>> results(const ReviewId& id) override;
    /// As save(), for one that a bundle brought: what was sent elsewhere answers no film that waits here.
    Result<std::int64_t> bring(const Review& review, const Assessment* told, bool toAFilmHere);
    Status markSent(const Review& asSent, const Assessment* told, const SentRecord& sent) override;

    Result<std::vector<KeptVersion>> versions(const ReviewId& review) override;
    Result<Review> version(std::int64_t row) override;
    Status takeVersion(std::int64_t row) override;

    Result<std::vector<Promise>> promises() override;
    Result<std::vector<Promise>> openPromises(Date dueBy) override;
    Result<int> promisesDueAfter(Date day) override;
    Result<std::vector<Promise>> promisesTo(const AthleteId& athlete) override;
    Status add(const std::vector<Promise>& promises) override;
    Result<Promise> change(std::int64_t promise, const ChangeOf<Promise>& what) override;

    Result<std::vector<OutboxItem>> outbox() override;
    std::vector<Message> takeLeftOut() override;
    Status add(const OutboxItem& item) override;
    Result<OutboxItem> mail(const std::string& id) override;
    Result<OutboxItem> changeMail(const std::string& id, const ChangeOf<OutboxItem>& what) override;
    Status mayHandOver(const ReviewId& review, std::int64_t nowUnix, Repeat repeat) override;
    Status beginHandOver(const OutboxItem& item, std::int64_t nowUnix, Repeat repeat) override;
    Result<int> unsentMails() override;

    Result<std::string> keepPlaybook(const std::string& text) override;
    Result<std::string> playbookText(const std::string& hash) override;

    std::string setting(const std::string& key, const std::string& otherwise = "") override;
    Status setSetting(const std::string& key, const std::string& value) override;
    Status changeSettings(const std::vector<SettingChange>& changes) override;

    Result<std::vector<ListEntry>> rows(ListOf list) override;
    Result<std::optional<ListEntry>> row(ListOf list, const std::string& key) override;
    Status put(ListOf list, const std::string& key, const std::string& document) override;
    Status drop(ListOf list, const std::string& key) override;
    Status changeRows(ListOf list, const ChangeOf<std::vector<ListEntry>>& what) override;

    Result<Pulse> pulse() override;
    std::int64_t writesOfOthers() override;

    Status lookOnly(bool on) override;
    Status mayWrite() const override;

    /// A consistent copy of the database as it is now, in a new file. Errors: Damaged, DiskFull.
    Status snapshot(const std::filesystem::path& file);
    /// What was deleted is overwritten and its room given back. Errors: those of writing.
    Status wipeDeleted();

protected:
    /// Errors: those of openDatabase().
    Status openFile(const std::filesystem::path& file);
    SqliteStore();

    /// Runs `work` in one transaction; SQLite's exceptions and what `work` throws become errors, and nothing
    /// is written.
    Status write(const std::function<void(SQLite::Database&)>& work);
    Result<std::int64_t> keepReview(const Review& review, const Assessment* told, bool brought);
    Result<int> count(const char* sql);
    /// Promises by a condition and their order. One that can't be read is left out and told.
    template <typename... Values>
    Result<std::vector<Promise>> promisesWhere(const char* which, const Values&... values);
    /// Runs `work`; SQLite's exceptions become errors.
    Status read(const std::function<void(SQLite::Database&)>& work);

private:
    std::filesystem::path file_;
    std::unique_ptr<SQLite::Database> db_;
    bool readOnly_ = false;
    LookLock look_;
    std::vector<Message> leftOut_; ///< by the lists, since it was asked for last
};

} // namespace jg
