// SPDX-License-Identifier: GPL-3.0-or-later
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
    std::string path; ///< within the library, "media/ab12"
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
    /// Films and sounds that the rows name and that were not there, or are not what their name says: the rest
    /// is backed up.
    std::vector<std::string> missing = {};
};

/// What lies in a backup folder: its states, the newest first, and a sentence for each that can't be read.
struct BackupStates {
    std::vector<BackupState> states;
    std::vector<Message> unreadable;
    bool empty() const { return states.empty(); }
    std::size_t size() const { return states.size(); }
    const BackupState& front() const { return states.front(); }
    const BackupState& operator[](std::size_t i) const { return states[i]; }
};

/// When a library was last backed up, seconds since 1970; nothing when it never was.
std::optional<std::int64_t> lastBackup(Store& store);

using BackupProgress = std::function<void(double part)>;

/// Takes the rows first, by a snapshot, then the files they name, as far as they are not there yet and whole;
/// writes the state last: a backup that was broken off is none, and the next goes on where it stopped. What
/// rotted in the folder is made anew. Other states stay. Errors: Refused (inside the library; not empty and
/// no backup; another one into this folder is under way; a link), Cancelled, DiskFull, WriteFailed,
/// Unreadable, Damaged.
Result<BackupState> backUp(Library& library, const std::filesystem::path& to, std::int64_t nowUnix,
                           std::stop_token stop = {}, const BackupProgress& progress = {});

/// Errors: NotFound when it is none.
Result<BackupStates> backupStates(const std::filesystem::path& folder);

/// Notes in a backup folder who was deleted from the library, by forgottenKey(): whoever brings a state back
/// is told. Errors: those of FileStore; NotFound when the folder is not there.
Status noteForgotten(const std::filesystem::path& folder, const std::vector<std::string>& keys,
                     FileStore& files);

/// Reads every object of a state. A sentence for each that is missing or altered; empty = whole. Errors:
/// Cancelled.
Result<std::vector<Message>> checkBackup(const std::filesystem::path& folder, const BackupState& state,
                                         std::stop_token stop = {}, const BackupProgress& progress = {});

/// What came back, and what did not.
struct RestoreReport {
    std::vector<Message> notes; ///< a sentence for each file that is missing or altered, and for each deleted
                                ///< athlete that is here again
};

/// Brings a state back as a library in a folder that is not there or empty; each file is checked as it is
/// copied, and the folder gets its name when all is there. What is missing or altered is named and left out;
/// the database itself must be whole. A consent that a newer state knows to be taken back stays so. Errors:
/// Refused (the folder holds something, or its parent is not there), Damaged (the database), Cancelled,
/// DiskFull, WriteFailed.
Result<RestoreReport> restoreBackup(const std::filesystem::path& folder, const BackupState& state,
                                    const std::filesystem::path& to, FileStore& files,
                                    std::stop_token stop = {}, const BackupProgress& progress = {});

} // namespace jg
