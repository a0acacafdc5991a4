// SPDX-License-Identifier: GPL-3.0-or-later
// The library: athletes, submissions, reviews and their media in one folder.
#pragma once

#include "base/file_store.h"
#include "base/result.h"
#include "library/belongings.h"
#include "library/contents.h"
#include "library/problem.h"
#include "library/sqlite_store.h"
#include "library/work_folder.h"

#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// One library folder: library.sqlite beside the folders of contents.h. One thread owns a Library; another
/// opens its own with again().
class Library final : public SqliteStore {
public:
    /// Opens a library, or creates one in an empty or missing folder when `create`. One whose folder can't be
    /// written opens to read. Errors: NotFound, Refused (also a folder of it that is a link), Damaged (also
    /// an emptied one), WriteFailed.
    static Result<std::unique_ptr<Library>> open(const std::filesystem::path& folder, bool create,
                                                 std::shared_ptr<FileStore> files);
    /// The same library once more, for another thread. Errors as open().
    Result<std::unique_ptr<Library>> again() const { return open(folder_, false, files_); }

    const std::filesystem::path& folder() const { return folder_; }
    FileStore& files() { return *files_; }

    /// Copies a film into media/ under its SHA-256; the original is not touched, its ending is kept as a
    /// fact. Returns the hash. `progress` gets 0..1. Errors: Unreadable (also one that changes while it is
    /// copied), DiskFull, WriteFailed, Cancelled.
    Result<std::string> addMedia(const std::filesystem::path& file, std::stop_token stop = {},
                                 const std::function<void(double)>& progress = {});
    /// A folder for one job. Errors: those of WorkFolder::make().
    Result<std::shared_ptr<WorkFolder>> workFolder() const { return WorkFolder::make(folder_); }
    /// Takes a film away that no clip of the library refers to: an intake that was given up.
    void dropUnusedMedia(const Clip& clip);
    std::filesystem::path mediaPath(const Clip& clip) const;
    /// The small still of a clip, made at intake; may be missing.
    std::filesystem::path stillPath(const Clip& clip) const;
    /// The clip's scrub copy, which may not be made yet.
    std::filesystem::path scrubPath(const Clip& clip) const;
    /// Paths of a take's sound, while it is recorded too, and of a mail. For a name that is none a path where
    /// nothing is.
    std::filesystem::path takePath(const std::string& file) const;
    std::filesystem::path unfinishedTakePath(const std::string& file) const;
    std::filesystem::path sentPath(const std::string& file) const;
    std::filesystem::path takesFolder() const { return folderIn(folder_, LibraryFolder::Takes); }
    /// Whose clip has an id; nothing when none has.
    Result<std::optional<SubmissionId>> submissionOfClip(const ClipId& clip);
    /// Whether a film is still anybody's: what is made of one by and by must not outlive it.
    Result<bool> hasFilm(const std::string& hash);

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
    /// Deletes all that belongs to an athlete, for good: the rows and a record without the name (what, how
    /// much, when) in one transaction; then the files; then what was deleted is overwritten in the database.
    /// Returns a sentence for each thing that can't be removed, and each backup that still holds them.
    /// Errors: NotFound, Refused in a library that can only be read, Damaged while a mail is being handed
    /// over, WriteFailed; then nothing is deleted.
    Result<std::vector<Message>> forgetAthlete(const AthleteId& athlete, Date today);

private:
    Library() = default;
    /// Removes the files that a deletion still owes, and overwrites what was deleted. Returns a sentence for
    /// each thing that stays.
    std::vector<Message> finishForgetting();
    std::filesystem::path asidePath(const std::string& name) const;
    /// A path within the library; for "" one that never exists.
    std::filesystem::path at(const std::string& file) const;
    void sweepParts();
    Status sweepMedia(std::vector<Message>& told);
    void sweepScrubs();

    std::filesystem::path folder_;
    std::shared_ptr<FileStore> files_;
};

/// SHA-256 of a file as hex; `progress` gets 0..1. Errors: Unreadable, Cancelled.
Result<std::string> contentHash(const std::filesystem::path& file, std::stop_token stop = {},
                                const std::function<void(double)>& progress = {});

} // namespace jg
