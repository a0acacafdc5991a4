// SPDX-License-Identifier: GPL-3.0-or-later
// Names out of sight: said to every program that has a library open.
#pragma once

#include "base/result.h"

#include <filesystem>

namespace jg {

/// While one is taken, nothing is written to its library, by nobody. The system frees it when its program
/// ends, however that is. Several may be taken at once. Linux; one thread owns one.
class LookLock {
public:
    LookLock() = default;
    ~LookLock() { drop(); }
    LookLock(const LookLock&) = delete;
    LookLock& operator=(const LookLock&) = delete;
    /// Errors: those of writing into the library's folder.
    Status take(const std::filesystem::path& library);
    void drop();
    bool taken() const { return file_ >= 0; }
    /// Whether anybody has taken one.
    static bool isTaken(const std::filesystem::path& library);

private:
    int file_ = -1;
};

} // namespace jg
