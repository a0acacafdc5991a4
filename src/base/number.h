// SPDX-License-Identifier: GPL-3.0-or-later
// The one place where numbers become text and text becomes numbers, whatever the system's locale.
#pragma once

#include <locale.h>
#include <optional>
#include <string>
#include <string_view>

namespace jg {

/// 1.25 with 1 decimal is "1.2" or "1.3" by the nearest, with a point whatever the locale.
std::string fixed(double value, int decimals);
/// So many significant digits and no zeros behind them: 4 of 0.85 is "0.85", as "%.4g".
std::string significant(double value, int digits);
/// The whole text as a number with a point; nothing else but white space round it. No infinities.
std::optional<double> parseNumber(std::string_view text);
/// The number a text begins with, whatever stands behind it: 120 of "120p".
std::optional<double> leadingNumber(std::string_view text);
/// A number as a person types it: a comma is a decimal point. "1,234.5" is refused, for it may mean two
/// things.
std::optional<double> typedNumber(std::string_view text);

/// While it lives this thread's C library reads and writes numbers with a point: round calls into libraries
/// that put numbers into strings for one another (filter graphs, encoder options). Other threads are not
/// touched.
class PlainNumbers {
public:
    PlainNumbers();
    ~PlainNumbers();
    PlainNumbers(const PlainNumbers&) = delete;
    PlainNumbers& operator=(const PlainNumbers&) = delete;

private:
    locale_t before_;
};

} // namespace jg
