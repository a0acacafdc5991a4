// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/work_folder.h"

#include "base/file_store.h"
#include "library/contents.h"

#include <cerrno>
#include <cstdlib>
#include <fcntl.h>
#include <string>
#include <sys/file.h>
#include <unistd.h>
#include <vector>

namespace jg {

namespace fs = std::filesystem;

namespace {

/// Locked while it lives; -1 when somebody else has it, or there is no such folder.
int lockOf(const fs::path& folder, int how) {
    const int fd = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_NOFOLLOW | O_CLOEXEC);
    if (fd >= 0 && ::flock(fd, how) == 0) return fd;
    if (fd >= 0) ::close(fd);
    return -1;
}

/// While it lives no folder is made or swept: one that was just made has no lock of its own yet.
class Door {
public:
    explicit Door(const fs::path& works)
        : lock_(lockOf(works, LOCK_EX)) {}
    ~Door() {
        if (lock_ >= 0) ::close(lock_);
    }
    Door(const Door&) = delete;
    Door& operator=(const Door&) = delete;
    bool open() const { return lock_ >= 0; }

private:
    int lock_;
};

} // namespace

Result<std::shared_ptr<WorkFolder>> WorkFolder::make(const fs::path& library) {
    const fs::path works = folderIn(library, LibraryFolder::Work);
    std::error_code ec;
    if (fs::is_symlink(fs::symlink_status(works, ec)))
        return fail(ErrorCode::Refused, msg("library.is-a-link", {{"name", nameOf(LibraryFolder::Work)}}));
    fs::create_directories(works, ec);
    const Door door(works);
    if (ec || !door.open()) return writeError(works, ec ? ec.value() : errno);
    std::string name = (works / "job-XXXXXX").string();
    if (!::mkdtemp(name.data())) return writeError(works, errno); // its owner's only
    const int lock = lockOf(name, LOCK_EX | LOCK_NB);
    if (lock < 0) return writeError(name, errno);
    return std::shared_ptr<WorkFolder>(new WorkFolder(name, lock));
}

WorkFolder::~WorkFolder() {
    std::error_code ec;
    fs::remove_all(path_, ec);
    ::close(lock_);
}

int WorkFolder::sweep(const fs::path& library) {
    const fs::path works = folderIn(library, LibraryFolder::Work);
    const Door door(works);
    if (!door.open()) return 0;
    std::error_code ec;
    std::vector<fs::path> left;
    for (const auto& entry : fs::directory_iterator(works, ec)) left.push_back(entry.path());
    int swept = 0;
    for (const fs::path& path : left) {
        const bool folder = fs::is_directory(fs::symlink_status(path, ec));
        const int lock = folder ? lockOf(path, LOCK_EX | LOCK_NB) : -1;
        if (folder && lock < 0) continue; // its job is at work
        fs::remove_all(path, ec);         // of a link only the link
        if (lock >= 0) ::close(lock);
        ++swept;
    }
    return swept;
}

} // namespace jg
