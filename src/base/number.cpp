// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/number.h"

#include "base/letters.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace jg {

namespace {

std::string written(double value, std::chars_format format, int precision) {
    char text[512]; // the largest double has 309 digits before the point
    const auto end = std::to_chars(text, text + sizeof text, value, format, precision);
    return std::string(text, end.ptr);
}

} // namespace

std::string fixed(double value, int decimals) {
    return written(value, std::chars_format::fixed, decimals);
}

std::string significant(double value, int digits) {
    return written(value, std::chars_format::general, digits);
}

std::optional<double> parseNumber(std::string_view text) {
    text = trimmed(text);
    if (text.starts_with('+')) text.remove_prefix(1);
    double value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (read.ec != std::errc() || read.ptr != text.data() + text.size() || !std::isfinite(value))
        return std::nullopt;
    return value;
}

std::optional<double> leadingNumber(std::string_view text) {
    text = trimmed(text);
    double value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (read.ec != std::errc() || !std::isfinite(value)) return std::nullopt;
    return value;
}

std::optional<double> typedNumber(std::string_view text) {
    std::string plain(text);
    const auto commas = std::count(plain.begin(), plain.end(), ',');
    if (commas > 1 || (commas == 1 && plain.find('.') != std::string::npos)) return std::nullopt;
    std::replace(plain.begin(), plain.end(), ',', '.');
    return parseNumber(plain);
}

namespace {
/// Made once and kept: threads come and go.
locale_t plainLocale() {
    static const locale_t plain = newlocale(LC_NUMERIC_MASK, "C", duplocale(LC_GLOBAL_LOCALE));
    return plain;
}
} // namespace

PlainNumbers::PlainNumbers()
    : before_(uselocale(plainLocale())) {}

PlainNumbers::~PlainNumbers() {
    uselocale(before_);
}

} // namespace jg
