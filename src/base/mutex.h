// SPDX-License-Identifier: GPL-3.0-or-later
// A mutex that says what it guards, so that a compiler can look whether it is held (clang's -Wthread-safety).
#pragma once

#include <mutex>

#if defined(__clang__)
#define JG_THREADS(attribute) __attribute__((attribute))
#else
#define JG_THREADS(attribute)
#endif
/// Of a member: it is read and written only while the mutex is held.
#define JG_GUARDED_BY(mutex) JG_THREADS(guarded_by(mutex))
/// Of a function or a lambda: whoever calls it holds the mutex.
#define JG_NEEDS(mutex) JG_THREADS(requires_capability(mutex))

namespace jg {

/// std::mutex with its rules told. std::condition_variable_any waits on it directly.
class JG_THREADS(capability("mutex")) Mutex {
public:
    void lock() JG_THREADS(acquire_capability()) { mutex_.lock(); }
    void unlock() JG_THREADS(release_capability()) { mutex_.unlock(); }

private:
    std::mutex mutex_;
};

/// Holds a mutex while it lives.
class JG_THREADS(scoped_lockable) Holding {
public:
    explicit Holding(Mutex& mutex) JG_THREADS(acquire_capability(mutex))
        : mutex_(mutex) {
        mutex_.lock();
    }
    ~Holding() JG_THREADS(release_capability()) { mutex_.unlock(); }
    Holding(const Holding&) = delete;
    Holding& operator=(const Holding&) = delete;

private:
    Mutex& mutex_;
};

} // namespace jg
