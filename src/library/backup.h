// Backup of a library to a folder or disk: only what is new is copied, all is checked, and it can be brought
// back.
#pragma once

#include "library/library.h"

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// One file of a library as it was on the day of a backup.
struct BackedFile {
    std::string path; ///< within the library, "media/ab12.mp4"
    std::string sha256;
    std::uint64_t bytes = 0;
    std::int64_t writtenAt = 0; ///< of the file, in the file system's own ticks: unchanged = not read again
    bool operator==(const BackedFile&) const = default;
};

/// The library as it was at one moment. In the backup folder it is states/AT.json beside objects/, where each
/// content lies once under its SHA-256.
struct BackupState {
    std::string at; ///< "2026-11-29T23-40-12Z"
    std::vector<BackedFile> files;
    std::uint64_t copiedBytes = 0; ///< of what was new that time
};

using BackupProgress = std::function<void(double part)>;

/// Copies what is not there yet, the database by a snapshot of its own, and writes the state last: a backup
/// that was broken off is none, and the next goes on where it stopped. Other states stay. Errors: Refused
/// (inside the library; not empty and no backup; another one into this folder is under way), Damaged (a film
/// is not what its name says), Cancelled, DiskFull, WriteFailed, Unreadable.
Result<BackupState> backUp(Library& library, const std::filesystem::path& to, std::int64_t nowUnix,
                           std::stop_token stop = {}, const BackupProgress& progress = {});

/// The states of a backup folder, the newest first. Errors: NotFound when it is none, Damaged.
Result<std::vector<BackupState>> backupStates(const std::filesystem::path& folder);

/// Reads every object of a state. A sentence for each that is missing or altered; empty = whole. Errors:
/// Cancelled.
Result<std::vector<Message>> checkBackup(const std::filesystem::path& folder, const BackupState& state,
                                         std::stop_token stop = {}, const BackupProgress& progress = {});

/// Brings a state back as a library in a folder that is not there or empty; each file is checked as it is
/// copied, and the folder gets its name when all is there. Errors: Refused (the folder holds something),
/// Damaged (a file is missing or altered), Cancelled, DiskFull, WriteFailed.
Status restoreBackup(const std::filesystem::path& folder, const BackupState& state,
                     const std::filesystem::path& to, FileStore& files, std::stop_token stop = {},
                     const BackupProgress& progress = {});

} // namespace jg
