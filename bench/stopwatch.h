// SPDX-License-Identifier: GPL-3.0-or-later
// Wall time in milliseconds.
#pragma once

#include <chrono>

namespace jg {

inline double msSince(std::chrono::steady_clock::time_point start) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

} // namespace jg
