// SPDX-License-Identifier: GPL-3.0-or-later
// A stretch of sound by its samples.
#pragma once

#include <cstdint>

namespace jg {

/// From the first sample up to the one before `to`.
struct SampleSpan {
    std::int64_t from = 0, to = 0;
    std::int64_t length() const { return to - from; }
    bool operator==(const SampleSpan&) const = default;
};

} // namespace jg
