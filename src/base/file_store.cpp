// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/file_store.h"

#include <algorithm>
#include <atomic>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>
#include <vector>

namespace jg {

namespace fs = std::filesystem;

Result<std::string> readFile(const fs::path& path) {
    std::error_code ec;
    if (!fs::exists(path, ec))
        return fail(ErrorCode::NotFound, msg("file-store.there-is-no-file-path", {{"path", path.string()}}));
    // A pipe would never end, and a device is nobody's document.
    std::ifstream in;
    if (fs::is_regular_file(path, ec)) in.open(path, std::ios::binary);
    std::ostringstream text;
    if (!in.is_open() || !(text << in.rdbuf() || fs::file_size(path, ec) == 0))
        return fail(ErrorCode::Unreadable, msg("file-store.unreadable", {{"path", path.string()}}));
    return text.str();
}

Error writeError(const fs::path& path, int errorNumber) {
    if (errorNumber == ENOSPC || errorNumber == EDQUOT)
        return fail(ErrorCode::DiskFull, msg("file-store.disk-full", {{"path", path.filename().string()}}));
    return fail(
        ErrorCode::WriteFailed,
        msg("file-store.unwritable", {{"path", path.string()}, {"errorNumber", std::strerror(errorNumber)}}));
}

namespace {

constexpr mode_t kOwnerOnly = 0600; // films of children

int flushToDisk(const fs::path& path) {
    const int fd = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0) return errno;
    const int error = ::fsync(fd) == 0 ? 0 : errno;
    ::close(fd);
    return error;
}

int openNew(const fs::path& path) {
    return ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, kOwnerOnly);
}

int writeBytes(int fd, std::string_view bytes) {
    while (!bytes.empty()) {
        const ssize_t n = ::write(fd, bytes.data(), bytes.size());
        if (n < 0 && errno != EINTR) return errno;
        if (n > 0) bytes.remove_prefix(static_cast<std::size_t>(n));
    }
    return 0;
}

int writeAll(const fs::path& path, std::string_view bytes) {
    const int fd = openNew(path);
    if (fd < 0) return errno;
    int error = writeBytes(fd, bytes);
    if (::close(fd) != 0 && error == 0) error = errno;
    return error;
}

/// What went wrong while a file was copied; 0 = nothing.
struct CopyFault {
    int number = 0;
    bool reading = false;
};

CopyFault copyPart(int in, int out, off_t at, off_t end) {
    constexpr off_t kChunk = 1 << 20;
    std::vector<char> chunk(static_cast<std::size_t>(std::min(kChunk, end - at)));
    if (::lseek(out, at, SEEK_SET) < 0) return {errno};
    while (at < end) {
        const auto wanted = std::min<std::size_t>(chunk.size(), static_cast<std::size_t>(end - at));
        const ssize_t n = ::pread(in, chunk.data(), wanted, at);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return {n < 0 ? errno : EIO, true};
        if (const int error = writeBytes(out, {chunk.data(), static_cast<std::size_t>(n)})) return {error};
        at += n;
    }
    return {};
}

/// Holes stay holes, so that a copy takes no more room than the file did.
CopyFault copyData(int in, int out, off_t size) {
    for (off_t at = 0; at < size;) {
        off_t data = ::lseek(in, at, SEEK_DATA);
        if (data < 0 && errno == ENXIO) break; // what is left is a hole
        if (data < 0) data = at;               // a file system that knows of none
        const off_t hole = ::lseek(in, data, SEEK_HOLE);
        const off_t end = hole < 0 ? size : hole;
        if (const CopyFault fault = copyPart(in, out, data, end); fault.number != 0) return fault;
        at = end;
    }
    return {::ftruncate(out, size) == 0 ? 0 : errno};
}

CopyFault copyAll(const fs::path& from, const fs::path& to) {
    struct stat facts {};
    if (::stat(from.c_str(), &facts) != 0) return {errno, true};
    if (!S_ISREG(facts.st_mode)) return {EINVAL, true}; // a pipe would never end
    const int in = ::open(from.c_str(), O_RDONLY | O_CLOEXEC);
    if (in < 0) return {errno, true};
    const int out = openNew(to);
    CopyFault fault = out < 0 ? CopyFault{errno} : copyData(in, out, facts.st_size);
    if (out >= 0 && ::close(out) != 0 && fault.number == 0) fault = {errno};
    ::close(in);
    return fault;
}

Status mayBeReplaced(const fs::path& path) {
    std::error_code ec;
    if (const auto there = fs::symlink_status(path, ec); fs::exists(there) && !fs::is_regular_file(there))
        return fail(ErrorCode::Refused, msg("file-store.not-an-ordinary-file", {{"path", path.string()}}));
    return Done{};
}

/// The content first, then the name: a power cut leaves the old file or the new one.
Status giveName(const fs::path& from, const fs::path& path) {
    if (const int error = flushToDisk(from)) return writeError(path, error);
    if (::rename(from.c_str(), path.c_str()) != 0) return writeError(path, errno);
    if (const int error = syncFolder(path.parent_path())) return writeError(path, error);
    return Done{};
}

/// A neighbour that no other thread or program writes to. The ending stays last, since encoders choose the
/// container by it.
fs::path neighbourOf(const fs::path& path) {
    static std::atomic<unsigned> serial = 0;
    return path.parent_path() / (".part-" + std::to_string(::getpid()) + "-" + std::to_string(++serial) +
                                 "-" + path.filename().string());
}

} // namespace

int syncFolder(const fs::path& folder) {
    const int fd = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return errno;
    // A file system that can't sync a folder has nothing to lose by it.
    const int error = ::fsync(fd) == 0 || errno == EINVAL ? 0 : errno;
    ::close(fd);
    return error;
}

int makeFolders(const fs::path& folder) {
    std::error_code ec;
    if (folder.empty() || fs::is_directory(folder, ec)) return 0;
    const fs::path above = folder.parent_path();
    if (const int error = above == folder ? 0 : makeFolders(above)) return error;
    fs::create_directory(folder, ec);
    return ec ? ec.value() : syncFolder(above);
}

Status FileStore::publish(const fs::path& path, const std::function<Status(const fs::path&)>& make) {
    std::error_code ec;
    if (const int error = makeFolders(path.parent_path())) return writeError(path, error);
    if (auto may = mayBeReplaced(path); !may) return may;
    const fs::path temporary = neighbourOf(path);
    Status made = make(temporary);
    if (made) made = giveName(temporary, path);
    if (!made) fs::remove(temporary, ec);
    return made;
}

Status FileStore::settle(const fs::path& from, const fs::path& path) {
    if (auto may = mayBeReplaced(path); !may) return may;
    return giveName(from, path);
}

Status FileStore::write(const fs::path& path, std::string_view bytes) {
    return publish(path, [&](const fs::path& temporary) -> Status {
        if (const int error = writeAll(temporary, bytes)) return writeError(path, error);
        return Done{};
    });
}

Status FileStore::copy(const fs::path& from, const fs::path& to) {
    return publish(to, [&](const fs::path& temporary) -> Status {
        const CopyFault fault = copyAll(from, temporary);
        if (fault.number == 0) return Done{};
        if (!fault.reading) return writeError(to, fault.number);
        return fail(ErrorCode::Unreadable,
                    msg("file-store.from-cant-be-copied-message",
                        {{"from", from.string()}, {"message", std::strerror(fault.number)}}));
    });
}

} // namespace jg
