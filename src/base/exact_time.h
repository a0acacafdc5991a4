// SPDX-License-Identifier: GPL-3.0-or-later
// Exact time: integers with a rational base. Seconds in a double are for showing only.
#pragma once

#include <compare>
#include <cstdint>

namespace jg {

/// A ratio of integers, den > 0 for a valid one. {0, 1} means "unknown" where a rate is meant.
struct Rational {
    std::int64_t num = 0;
    std::int64_t den = 1;
    double toDouble() const { return den == 0 ? 0.0 : static_cast<double>(num) / static_cast<double>(den); }
    bool operator==(const Rational&) const = default;
};

/// The index of a picture in display order, counted from 0. Not a time.
struct FrameNumber {
    std::int64_t value = 0;
    auto operator<=>(const FrameNumber&) const = default; // NOLINT(modernize-use-nullptr)
};

/// A presentation time stamp in units of its film's time base.
struct Pts {
    std::int64_t value = 0;
    auto operator<=>(const Pts&) const = default; // NOLINT(modernize-use-nullptr)
};

/// Seconds of a pts, for showing.
inline double secondsOf(Pts pts, Rational timeBase) {
    return static_cast<double>(pts.value) * timeBase.toDouble();
}

} // namespace jg
