// The library: athletes, submissions, reviews and their media in one folder.
#pragma once

#include "base/file_store.h"
#include "base/result.h"
#include "library/belongings.h"
#include "library/problem.h"
#include "library/sqlite_store.h"

#include <chrono>
#include <filesystem>
#include <functional>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// One library folder: library.sqlite beside media/ (by content hash), takes/ and sent/. One thread owns a
/// Library; another opens its own with again().
class Library final : public SqliteStore {
public:
    /// Opens a library, or creates one in an empty or missing folder when `create`. One whose folder can't be
    /// written opens to read. Errors: NotFound, Refused, Damaged, WriteFailed.
    static Result<std::unique_ptr<Library>> open(const std::filesystem::path& folder, bool create,
                                                 std::shared_ptr<FileStore> files);
    /// The same library once more, for another thread. Errors as open().
    Result<std::unique_ptr<Library>> again() const { return open(folder_, false, files_); }

    const std::filesystem::path& folder() const { return folder_; }
    FileStore& files() { return *files_; }

    /// Copies a film into media/ under its SHA-256; the original is not touched. Returns the hash. `progress`
    /// gets 0..1. Errors: Unreadable, DiskFull, WriteFailed, Cancelled.
    Result<std::string> addMedia(const std::filesystem::path& file, std::stop_token stop = {},
                                 const std::function<void(double)>& progress = {});
    /// Takes a film away that no clip of the library refers to: an intake that was given up.
    void dropUnusedMedia(const Clip& clip);
    std::filesystem::path mediaPath(const Clip& clip) const;
    /// The small still of a clip, made at intake; may be missing.
    std::filesystem::path stillPath(const Clip& clip) const;
    /// The clip's scrub copy, which may not be made yet. Not part of what verify() watches.
    std::filesystem::path scrubPath(const Clip& clip) const;
    std::filesystem::path takePath(const std::string& file) const;
    std::filesystem::path sentPath(const std::string& file) const;

    static constexpr std::chrono::hours kAtWork{1}; ///< own choice: a younger file may be at work

    /// Each thing that is not as it should be: rows altered or unreadable, films and takes missing or
    /// altered, mails without a file, files that belong to nothing. Empty = all is well. Reads every film;
    /// `progress` gets 0..1. Errors: Cancelled.
    Result<std::vector<Problem>> examine(std::stop_token stop = {},
                                         const std::function<void(double)>& progress = {});
    /// The same as sentences.
    std::vector<Message> verify();
    /// Does what repairOf() says of a problem. Errors: Refused where there is no repair, NotFound when it is
    /// gone meanwhile, those of Store and FileStore; then nothing is changed.
    Status repair(const Problem& problem);
    /// Clears what a killed program left: parts of files, and films of an intake that broke off. Returns a
    /// sentence for each thing that a person may miss. What is younger than an hour may be at work and stays.
    std::vector<Message> sweep();

    /// What would go with an athlete. Errors: NotFound, those of reading.
    Result<Belongings> belongingsOf(const AthleteId& athlete);
    /// Deletes all that belongs to an athlete, for good: the rows in one transaction, overwritten in the
    /// database; then the files. A record without the name stays in the settings (what, how much, when).
    /// Returns a sentence for each file that can't be removed and each backup that still holds them. Errors:
    /// NotFound, Refused in a library that can only be read, Damaged while a mail is being handed over,
    /// WriteFailed; then nothing is deleted.
    Result<std::vector<Message>> forgetAthlete(const AthleteId& athlete, Date today);

private:
    Library() = default;
    std::filesystem::path asidePath(const std::string& name) const;

    std::filesystem::path folder_;
    std::shared_ptr<FileStore> files_;
};

/// SHA-256 of a file as hex; `progress` gets 0..1. Errors: Unreadable, Cancelled.
Result<std::string> contentHash(const std::filesystem::path& file, std::stop_token stop = {},
                                const std::function<void(double)>& progress = {});

} // namespace jg
