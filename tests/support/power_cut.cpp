// SPDX-License-Identifier: GPL-3.0-or-later
// Preloaded into a program, keeps a shadow of what it syncs (power_cut.h). By the environment: JG_POWER_UNDER
// (the folder that is watched), JG_POWER_SHADOW (where the shadow lies, elsewhere).
#include "tests/support/power_cut.h"

#include <climits>
#include <cstdlib>
#include <cstring>

#include <dlfcn.h>

namespace {

/// What an open file is called now, when it lies under the watched folder; else empty.
std::string watched(int fd) {
    static const char* under = std::getenv("JG_POWER_UNDER");
    char link[64], path[PATH_MAX];
    std::snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    const ssize_t n = under ? ::readlink(link, path, sizeof path - 1) : -1;
    if (n <= 0) return {};
    path[n] = 0;
    return std::strncmp(path, under, std::strlen(under)) == 0 ? std::string(path) : std::string();
}

int synced(int fd, const char* name) {
    const int done = reinterpret_cast<int (*)(int)>(::dlsym(RTLD_NEXT, name))(fd);
    const std::string path = watched(fd);
    if (done == 0 && !path.empty()) jg::power::keep(path, std::getenv("JG_POWER_SHADOW"));
    return done;
}

} // namespace

extern "C" {

int fsync(int fd) {
    return synced(fd, "fsync");
}

int fdatasync(int fd) {
    return synced(fd, "fdatasync");
}

} // extern "C"
