// SPDX-License-Identifier: GPL-3.0-or-later
// Preloaded into a program, lets one of its writing calls fail: the n-th on a file under a folder, once. By
// the environment: JG_FAIL_UNDER (folder), JG_FAIL_AT (n from 1; 0 = none), JG_FAIL_HOW (ENOSPC, EIO, EACCES
// or SHORT, which writes half), JG_FAIL_COUNT (a file that gets the number of calls when the program ends).
#include <cerrno>
#include <climits>
#include <cstdarg>
#include <cstdio>
#include <cstdlib>
#include <cstring>

#include <dlfcn.h>
#include <fcntl.h>
#include <unistd.h>

#include <atomic>
#include <string>

namespace {

std::atomic<long> calls = 0;
thread_local bool inside = false; // what is asked of /proc meanwhile does not count

const char* under() {
    static const char* folder = std::getenv("JG_FAIL_UNDER");
    return folder;
}

int errorOf() {
    static const std::string how = std::getenv("JG_FAIL_HOW") ? std::getenv("JG_FAIL_HOW") : "ENOSPC";
    return how == "EIO" ? EIO : how == "EACCES" ? EACCES : how == "SHORT" ? 0 : ENOSPC;
}

bool watched(const char* path) {
    return under() && path && std::strncmp(path, under(), std::strlen(under())) == 0;
}

bool watched(int fd) {
    char link[64], path[PATH_MAX];
    std::snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    const ssize_t n = ::readlink(link, path, sizeof path - 1);
    if (n <= 0) return false;
    path[n] = 0;
    return watched(path);
}

/// True when this call is the one that fails.
template <typename Where>
bool fails(Where where) {
    if (inside) return false;
    inside = true;
    static const long at = std::getenv("JG_FAIL_AT") ? std::atol(std::getenv("JG_FAIL_AT")) : 0;
    const bool mine = watched(where) && ++calls == at;
    inside = false;
    return mine;
}

/// What a call that can't be short gives back.
int refused() {
    errno = errorOf() ? errorOf() : EIO;
    return -1;
}

template <typename Function>
Function real(const char* name) {
    return reinterpret_cast<Function>(::dlsym(RTLD_NEXT, name));
}

/// Only a call that makes a file counts; only that one has a mode.
int openBy(const char* name, const char* path, int flags, va_list rest) {
    const mode_t mode = flags & O_CREAT ? va_arg(rest, mode_t) : 0;
    if ((flags & O_CREAT) && fails(path)) return refused();
    return real<int (*)(const char*, int, ...)>(name)(path, flags, mode);
}

struct Report {
    ~Report() {
        const char* file = std::getenv("JG_FAIL_COUNT");
        if (!file) return;
        if (FILE* out = std::fopen(file, "w")) {
            std::fprintf(out, "%ld", calls.load());
            std::fclose(out);
        }
    }
} report;

} // namespace

extern "C" {

ssize_t write(int fd, const void* bytes, size_t n) {
    static const auto next = real<ssize_t (*)(int, const void*, size_t)>("write");
    if (!fails(fd)) return next(fd, bytes, n);
    if (errorOf() == 0) return next(fd, bytes, n > 1 ? n / 2 : n);
    return refused();
}

ssize_t pwrite64(int fd, const void* bytes, size_t n, off64_t at) {
    static const auto next = real<ssize_t (*)(int, const void*, size_t, off64_t)>("pwrite64");
    if (!fails(fd)) return next(fd, bytes, n, at);
    if (errorOf() == 0) return next(fd, bytes, n > 1 ? n / 2 : n, at);
    return refused();
}

int fsync(int fd) {
    static const auto next = real<int (*)(int)>("fsync");
    if (!fails(fd)) return next(fd);
    return refused();
}

int fdatasync(int fd) {
    static const auto next = real<int (*)(int)>("fdatasync");
    if (!fails(fd)) return next(fd);
    return refused();
}

int rename(const char* from, const char* to) {
    static const auto next = real<int (*)(const char*, const char*)>("rename");
    if (!fails(to)) return next(from, to);
    return refused();
}

int ftruncate64(int fd, off64_t size) {
    static const auto next = real<int (*)(int, off64_t)>("ftruncate64");
    if (!fails(fd)) return next(fd, size);
    return refused();
}

int open64(const char* path, int flags, ...) {
    va_list rest;
    va_start(rest, flags);
    const int fd = openBy("open64", path, flags, rest);
    va_end(rest);
    return fd;
}

int open(const char* path, int flags, ...) {
    va_list rest;
    va_start(rest, flags);
    const int fd = openBy("open", path, flags, rest);
    va_end(rest);
    return fd;
}
}
