// The store as SQLite keeps it.
#pragma once

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
    Status save(const Athlete& athlete) override;
    Result<int> athleteCount() override;
    Result<std::vector<AthleteRow>> athleteRows(const std::string& search = "") override;

    Result<std::vector<Submission>> submissions() override;
    Result<Submission> submission(const SubmissionId& id) override;
    Status save(const Submission& submission, const Athlete* newAthlete = nullptr) override;
    Result<std::vector<Submission>> painOf(const AthleteId& athlete) override;
    Result<std::vector<AthleteId>> athletesOfMedia(const std::string& hash) override;
    Result<std::vector<WaitingRow>> waiting() override;

    Result<Review> review(const ReviewId& id) override;
    Result<std::optional<Review>> reviewOf(const SubmissionId& submission) override;
    Result<std::vector<ReviewSummary>> reviews(int newest = 0) override;
    Result<std::vector<ReviewSummary>> sentSince(Date day) override;
    Result<std::vector<ReviewOfAthlete>> reviewsOf(const AthleteId& athlete) override;
    Result<std::int64_t> save(const Review& review, const Assessment* told = nullptr) override;
    Result<std::optional<Assessment>> results(const ReviewId& id) override;
    Status markSent(const ReviewId& id, const SentRecord& sent) override;

    Result<std::vector<KeptVersion>> versions(const ReviewId& review) override;
    Result<Review> version(std::int64_t row) override;
    Status takeVersion(std::int64_t row) override;

    Result<std::vector<Promise>> promises() override;
    Result<std::vector<Promise>> openPromises(Date dueBy) override;
    Result<int> promisesDueAfter(Date day) override;
    Result<std::vector<Promise>> promisesTo(const AthleteId& athlete) override;
    Status save(const Promise& promise) override;

    Result<std::vector<OutboxItem>> outbox() override;
    std::vector<Message> takeLeftOut() override;
    Status save(const OutboxItem& item) override;
    Status mayHandOver(const ReviewId& review, std::int64_t nowUnix, bool again) override;
    Status beginHandOver(const OutboxItem& item, std::int64_t nowUnix, bool again) override;
    Result<int> unsentMails() override;

    Result<std::string> keepPlaybook(const std::string& text) override;
    Result<std::string> playbookText(const std::string& hash) override;

    std::string setting(const std::string& key, const std::string& otherwise = "") override;
    Status setSetting(const std::string& key, const std::string& value) override;

    void lookOnly(bool on) override { lookOnly_ = on; }
    Status mayWrite() const override;

    /// A consistent copy of the database as it is now, in a new file. Errors: Damaged, DiskFull.
    Status snapshot(const std::filesystem::path& file);
    /// What was deleted is overwritten and its room given back. Errors: those of writing.
    Status wipeDeleted();

protected:
    /// Errors: those of openDatabase().
    Status openFile(const std::filesystem::path& file);
    SqliteStore();

    /// Runs `work` in one transaction; SQLite's exceptions become errors.
    Status write(const std::function<void(SQLite::Database&)>& work);
    Result<int> count(const char* sql);
    /// Promises by a condition and their order. One that can't be read is left out and told.
    template <typename... Values>
    Result<std::vector<Promise>> promisesWhere(const char* which, const Values&... values);
    /// Runs `work`; SQLite's exceptions become errors.
    Status read(const std::function<void(SQLite::Database&)>& work);

private:
    std::filesystem::path file_;
    std::unique_ptr<SQLite::Database> db_;
    bool readOnly_ = false, lookOnly_ = false;
    std::vector<Message> leftOut_; ///< by the lists, since it was asked for last
};

} // namespace jg
