// Calendar dates without a time of day, and the clock seam.
#pragma once

#include <chrono>
#include <optional>
#include <string>
#include <string_view>

namespace jg {

using Date = std::chrono::year_month_day;

/// "2026-11-25".
std::string isoDate(Date date);
/// Reads "2026-11-25"; nothing when it is not a valid date.
std::optional<Date> parseIsoDate(std::string_view text);
/// "25 November".
std::string longDate(Date date);
/// "Wednesday" ... of a date.
std::string weekdayName(Date date);
/// "January" for 1, to 12.
std::string_view monthName(unsigned month);
Date addDays(Date date, int days);
/// b - a in days.
int daysBetween(Date a, Date b);

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
