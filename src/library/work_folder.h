// SPDX-License-Identifier: GPL-3.0-or-later
// A folder in which one job lays what it makes: letter and film, films of a mail, what a bundle brings.
#pragma once

#include "base/result.h"

#include <filesystem>
#include <memory>

namespace jg {

/// A folder of its own in a library's work folder, with a random name, for its owner only; gone with this
/// object. A program that ends without that leaves it to the next start's sweep, which knows by a lock whose
/// program still lives. Any one thread.
class WorkFolder {
public:
    /// Errors: DiskFull, WriteFailed, Refused when the work folder is a link.
    static Result<std::shared_ptr<WorkFolder>> make(const std::filesystem::path& library);
    ~WorkFolder();
    WorkFolder(const WorkFolder&) = delete;
    WorkFolder& operator=(const WorkFolder&) = delete;
    const std::filesystem::path& path() const { return path_; }

    /// Removes the work folders of programs that are gone. How many.
    static int sweep(const std::filesystem::path& library);

private:
    WorkFolder(std::filesystem::path path, int lock)
        : path_(std::move(path))
        , lock_(lock) {}
    std::filesystem::path path_;
    int lock_; ///< of the folder itself, held while the job lives
};

} // namespace jg
