// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/look_lock.h"

#include "base/file_store.h"
#include "library/contents.h"

#include <cerrno>
#include <fcntl.h>
#include <unistd.h>

namespace jg {

namespace {

struct flock wholeFile(short type) {
    struct flock lock {};
    lock.l_type = type;
    lock.l_whence = SEEK_SET;
    return lock;
}

} // namespace

Status LookLock::take(const std::filesystem::path& library) {
    if (taken()) return Done{};
    const std::filesystem::path path = library / kLookFile;
    file_ = ::open(path.c_str(), O_RDWR | O_CREAT | O_NOFOLLOW | O_CLOEXEC, 0600);
    struct flock lock = wholeFile(F_RDLCK); // shared: two windows may hide names
    if (file_ >= 0 && ::fcntl(file_, F_OFD_SETLK, &lock) == 0) return Done{};
    const int why = errno;
    drop();
    return writeError(path, why);
}

void LookLock::drop() {
    if (file_ >= 0) ::close(file_);
    file_ = -1;
}

bool LookLock::isTaken(const std::filesystem::path& library) {
    const int file = ::open((library / kLookFile).c_str(), O_RDONLY | O_NOFOLLOW | O_CLOEXEC);
    if (file < 0) return false; // nobody ever hid names here
    struct flock lock = wholeFile(F_WRLCK);
    const bool held = ::fcntl(file, F_OFD_GETLK, &lock) == 0 && lock.l_type != F_UNLCK;
    ::close(file);
    return held;
}

} // namespace jg
