// SPDX-License-Identifier: GPL-3.0-or-later
// Calendar dates without a time of day.
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

} // namespace jg
