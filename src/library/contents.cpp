// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/contents.h"

#include "base/ids.h"

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <iterator>
#include <signal.h>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr std::string_view kPart = ".part-"; // as FileStore and Recorder name what they write
constexpr std::size_t kHashLength = 64;

std::string within(LibraryFolder folder, const std::string& name) {
    return std::string(nameOf(folder)) + "/" + name;
}

std::string ofHash(LibraryFolder folder, const std::string& hash, const char* ending) {
    return isContentHash(hash) ? within(folder, hash + ending) : std::string();
}

/// The process in ".part-PID-SERIAL-NAME".
std::optional<pid_t> writerOf(std::string_view part) {
    if (!part.starts_with(kPart)) return std::nullopt;
    const char *begin = part.data() + kPart.size(), *end = part.data() + part.size();
    pid_t pid = 0;
    const auto read = std::from_chars(begin, end, pid);
    if (read.ec != std::errc() || read.ptr == end || *read.ptr != '-' || pid <= 0) return std::nullopt;
    unsigned serial = 0;
    const auto second = std::from_chars(read.ptr + 1, end, serial);
    return second.ec == std::errc() && second.ptr != end && *second.ptr == '-' ? std::optional(pid)
                                                                               : std::nullopt;
}

} // namespace

const char* nameOf(LibraryFolder folder) {
    return std::find_if(std::begin(kLibraryFolders), std::end(kLibraryFolders),
                        [&](const FolderFacts& f) { return f.folder == folder; })
        ->name;
}

fs::path folderIn(const fs::path& library, LibraryFolder folder) {
    return library / nameOf(folder);
}

std::string filmFile(const std::string& hash) {
    return ofHash(LibraryFolder::Media, hash, "");
}

std::string stillFile(const std::string& hash) {
    return ofHash(LibraryFolder::Media, hash, ".still.png");
}

std::string scrubFile(const std::string& hash) {
    return ofHash(LibraryFolder::Scrub, hash, ".mov");
}

std::string takeFile(const std::string& name) {
    return isPlainName(name) ? within(LibraryFolder::Takes, name) : std::string();
}

std::string unfinishedTakeFile(const std::string& name) {
    return isPlainName(name) ? within(LibraryFolder::Takes, std::string(kPart) + name) : std::string();
}

std::string letterFile(const std::string& name) {
    return isPlainName(name) ? within(LibraryFolder::Sent, name) : std::string();
}

bool isInside(const fs::path& path) {
    if (path.empty() || path.is_absolute() || path.string().find('\\') != std::string::npos) return false;
    return std::none_of(path.begin(), path.end(),
                        [](const fs::path& p) { return p == ".." || p == "." || p.empty(); });
}

bool isContentHash(std::string_view text) {
    return text.size() == kHashLength && text.find_first_not_of("0123456789abcdef") == text.npos;
}

std::optional<std::string> hashOfFile(const fs::path& file) {
    const std::string name = file.filename().string();
    const std::string first = name.substr(0, name.find('.'));
    return isContentHash(first) ? std::optional(first) : std::nullopt;
}

bool isPart(std::string_view name) {
    return name.starts_with(kPart);
}

bool isUnfinishedTake(std::string_view name) {
    return isPart(name) && name.ends_with(".wav") && !writerOf(name);
}

bool mayBeAtWork(const fs::path& path) {
    std::error_code ec;
    const auto written = fs::last_write_time(path, ec);
    return ec || fs::file_time_type::clock::now() - written <= kAtWork;
}

bool writerLives(std::string_view part) {
    const auto pid = writerOf(part);
    return pid && (::kill(*pid, 0) == 0 || errno == EPERM);
}

bool isDatabaseFile(std::string_view name) {
    for (const char* beside : {"", "-wal", "-shm", "-journal"})
        if (name == std::string(kDatabaseFile) + beside) return true;
    return false;
}

bool belongsAtTheTop(std::string_view name) {
    return isDatabaseFile(name) || name == kLookFile || isPart(name) ||
           std::any_of(std::begin(kLibraryFolders), std::end(kLibraryFolders),
                       [&](const FolderFacts& f) { return name == f.name; });
}

std::optional<std::string> linkIn(const fs::path& library) {
    std::error_code ec;
    const auto isLink = [&](const char* name) {
        return fs::is_symlink(fs::symlink_status(library / name, ec));
    };
    if (isLink(kDatabaseFile)) return kDatabaseFile;
    for (const FolderFacts& f : kLibraryFolders)
        if (isLink(f.name)) return f.name;
    return std::nullopt;
}

} // namespace jg
