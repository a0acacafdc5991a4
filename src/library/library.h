// The library: athletes, submissions, reviews and their media in one folder.
#pragma once

#include "base/file_store.h"
#include "base/result.h"
#include "review/people.h"
#include "review/review.h"

#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A mail that waits, was sent, or failed. `file` lies in the library's sent folder.
struct OutboxItem {
    std::string id;
    ReviewId review;
    std::string recipient;
    std::string subject;
    std::string file;
    std::string state; ///< waiting | sent | failed | unsure
    std::string reason;
    std::int64_t at = 0; ///< seconds since 1970 UTC
};

/// One library folder: library.sqlite beside media/ (by content hash), takes/ and sent/. Every call is one
/// transaction; a killed process loses at most the call in flight. One thread owns a Library.
class Library {
public:
    /// Opens a library, or creates one in an empty or missing folder when `create`. Errors: NotFound,
    /// Refused, Damaged, WriteFailed.
    static Result<std::unique_ptr<Library>> open(const std::filesystem::path& folder, bool create,
                                                 std::shared_ptr<FileStore> files);
    ~Library();
    Library(const Library&) = delete;
    Library& operator=(const Library&) = delete;

    const std::filesystem::path& folder() const;
    FileStore& files();

    // Errors of all reads: Damaged. Of all writes: WriteFailed, DiskFull, Damaged.
    Result<std::vector<Athlete>> athletes();
    Result<Athlete> athlete(const AthleteId& id);
    Status save(const Athlete& athlete);

    Result<std::vector<Submission>> submissions();
    Result<Submission> submission(const SubmissionId& id);
    Status save(const Submission& submission);

    Result<std::vector<Review>> reviews();
    Result<Review> review(const ReviewId& id);
    Result<std::optional<Review>> reviewOf(const SubmissionId& submission);
    Status save(const Review& review);

    Result<std::vector<Promise>> promises();
    Status save(const Promise& promise); ///< adds when row is 0

    Result<std::vector<OutboxItem>> outbox();
    Status save(const OutboxItem& item);

    std::string setting(const std::string& key, const std::string& otherwise = "");
    Status setSetting(const std::string& key, const std::string& value);

    /// Copies a film into media/ under its SHA-256; the original is not touched. Returns the hash.
    /// Errors: Unreadable, DiskFull, WriteFailed.
    Result<std::string> addMedia(const std::filesystem::path& file);
    std::filesystem::path mediaPath(const Clip& clip) const;
    /// The clip's scrub copy, which may not be made yet. Not part of what verify() watches.
    std::filesystem::path scrubPath(const Clip& clip) const;
    std::filesystem::path takePath(const std::string& file) const;
    std::filesystem::path sentPath(const std::string& file) const;

    /// A sentence for each thing that is not as it should be: media missing or altered, takes missing, rows
    /// that can't be read. Empty = all is well. Reads every media file.
    std::vector<std::string> verify();

private:
    class Impl;
    explicit Library(std::unique_ptr<Impl> impl);
    std::unique_ptr<Impl> impl_;
};

/// SHA-256 of a file as hex. Errors: Unreadable.
Result<std::string> contentHash(const std::filesystem::path& file);

} // namespace jg
