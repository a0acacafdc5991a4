#include "base/file_store.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <unistd.h>

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
        return fail(ErrorCode::Unreadable,
                    msg("file-store.path-cant-be-read-check-its", {{"path", path.string()}}));
    return text.str();
}

Error writeError(const fs::path& path, int errorNumber) {
    if (errorNumber == ENOSPC || errorNumber == EDQUOT)
        return fail(ErrorCode::DiskFull,
                    msg("file-store.the-disk-is-full-path-was", {{"path", path.filename().string()}}));
    return fail(ErrorCode::WriteFailed,
                msg("file-store.path-cant-be-written-error-number",
                    {{"path", path.string()}, {"errorNumber", std::strerror(errorNumber)}}));
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

int writeAll(const fs::path& path, std::string_view bytes) {
    const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, kOwnerOnly);
    if (fd < 0) return errno;
    int error = 0;
    while (!bytes.empty() && error == 0) {
        const ssize_t n = ::write(fd, bytes.data(), bytes.size());
        if (n < 0)
            error = errno == EINTR ? 0 : errno;
        else
            bytes.remove_prefix(static_cast<std::size_t>(n));
    }
    if (::close(fd) != 0 && error == 0) error = errno;
    return error;
}

} // namespace

Status FileStore::publish(const fs::path& path, const std::function<Status(const fs::path&)>& make) {
    std::error_code ec;
    if (path.has_parent_path()) fs::create_directories(path.parent_path(), ec);
    if (ec) return writeError(path, ec.value());
    if (const auto there = fs::symlink_status(path, ec); fs::exists(there) && !fs::is_regular_file(there))
        return fail(ErrorCode::Refused, msg("file-store.not-an-ordinary-file", {{"path", path.string()}}));
    // The ending stays last, since encoders choose the container by it.
    const fs::path temporary =
        path.parent_path() / (".part-" + std::to_string(::getpid()) + "-" + path.filename().string());
    Status made = make(temporary);
    if (made) {
        if (const int error = flushToDisk(temporary)) made = writeError(path, error);
    }
    if (made && ::rename(temporary.c_str(), path.c_str()) != 0) made = writeError(path, errno);
    if (!made) fs::remove(temporary, ec);
    return made;
}

Status FileStore::write(const fs::path& path, std::string_view bytes) {
    return publish(path, [&](const fs::path& temporary) -> Status {
        if (const int error = writeAll(temporary, bytes)) return writeError(path, error);
        return Done{};
    });
}

Status FileStore::copy(const fs::path& from, const fs::path& to) {
    return publish(to, [&](const fs::path& temporary) -> Status {
        std::error_code ec;
        fs::copy_file(from, temporary, fs::copy_options::overwrite_existing, ec);
        if (!ec) return Done{};
        if (ec == std::errc::no_space_on_device) return writeError(to, ENOSPC);
        return fail(ErrorCode::Unreadable, msg("file-store.from-cant-be-copied-message",
                                               {{"from", from.string()}, {"message", ec.message()}}));
    });
}

} // namespace jg
