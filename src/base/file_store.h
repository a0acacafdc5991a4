// SPDX-License-Identifier: GPL-3.0-or-later
// The seam for writing files: whole or not at all.
#pragma once

#include "base/result.h"

#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

namespace jg {

/// Reads a whole file; only an ordinary one, no pipe and no device. Errors: NotFound, Unreadable.
Result<std::string> readFile(const std::filesystem::path& path);

/// What was renamed or made in a folder is on the disk from then on. The error's number; 0 = done.
int syncFolder(const std::filesystem::path& folder);

/// Makes a folder and those above it; their names are on the disk when it returns. The error's number; 0 =
/// done.
int makeFolders(const std::filesystem::path& folder);

/// Writes files so that a reader sees the old content or the new one, never a part, and nobody but the owner
/// reads them; when a call returns, content and name are on the disk. Two threads or programs may write one
/// path: one of them wins, whole. What is no ordinary file (a link, a device, a pipe) is never replaced:
/// Refused. Thread-safe. Tests replace it to make the disk full.
class FileStore {
public:
    virtual ~FileStore() = default;
    /// Replaces `path` by `bytes` (written beside it, flushed, renamed). Errors: DiskFull, WriteFailed.
    virtual Status write(const std::filesystem::path& path, std::string_view bytes);
    /// Copies a file the same way; its holes stay holes. Errors: Unreadable, DiskFull, WriteFailed.
    virtual Status copy(const std::filesystem::path& from, const std::filesystem::path& to);
    /// Lets `make` write to a temporary neighbour of `path`, then renames it into place. The neighbour is
    /// removed when `make` fails, so no half file is left. Errors: those of make, DiskFull, WriteFailed.
    virtual Status publish(const std::filesystem::path& path,
                           const std::function<Status(const std::filesystem::path& temporary)>& make);
    /// Gives a finished file of the same disk its name; an ordinary one of that name is replaced. Errors: as
    /// publish().
    virtual Status settle(const std::filesystem::path& from, const std::filesystem::path& path);
};

/// The sentence for errno after a failed write.
Error writeError(const std::filesystem::path& path, int errorNumber);

} // namespace jg
