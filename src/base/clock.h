// SPDX-License-Identifier: GPL-3.0-or-later
// The clock seam.
#pragma once

#include "base/date.h"

#include <cstdint>
#include <string>

namespace jg {

/// Where "now" comes from; tests and the demo fix it. Thread-safe.
class Clock {
public:
    virtual ~Clock() = default;
    /// Seconds since 1970 UTC.
    virtual std::int64_t nowUnix() const = 0;
    /// Today in local time.
    virtual Date today() const = 0;
    /// Local time of day as "19:42".
    virtual std::string timeOfDay() const = 0;
};

/// The machine's clock.
class SystemClock final : public Clock {
public:
    std::int64_t nowUnix() const override;
    Date today() const override;
    std::string timeOfDay() const override;
};

/// A clock that stands still at noon UTC of a date.
class FixedClock final : public Clock {
public:
    explicit FixedClock(Date date)
        : date_(date) {}
    std::int64_t nowUnix() const override;
    Date today() const override { return date_; }
    std::string timeOfDay() const override { return "12:00"; }

private:
    Date date_;
};

} // namespace jg
