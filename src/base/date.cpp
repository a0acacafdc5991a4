// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/date.h"

#include <array>
#include <charconv>
#include <cstdio>
#include <ctime>

namespace jg {

using namespace std::chrono;

std::string isoDate(Date date) {
    char text[40];
    std::snprintf(text, sizeof text, "%04d-%02u-%02u", static_cast<int>(date.year()),
                  static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()));
    return text;
}

std::optional<Date> parseIsoDate(std::string_view text) {
    if (text.size() != 10 || text[4] != '-' || text[7] != '-') return std::nullopt;
    int y = 0;
    unsigned m = 0;
    unsigned d = 0;
    const char* s = text.data();
    if (std::from_chars(s, s + 4, y).ptr != s + 4 || std::from_chars(s + 5, s + 7, m).ptr != s + 7 ||
        std::from_chars(s + 8, s + 10, d).ptr != s + 10)
        return std::nullopt;
    const Date date{year{y}, month{m}, day{d}};
    if (!date.ok()) return std::nullopt;
    return date;
}

std::string_view monthName(unsigned month) {
    static constexpr std::array<std::string_view, 12> names = {
        "January", "February", "March",     "April",   "May",      "June",
        "July",    "August",   "September", "October", "November", "December"};
    return names.at(month - 1);
}

std::string longDate(Date date) {
    return std::to_string(static_cast<unsigned>(date.day())) + " " +
           std::string(monthName(static_cast<unsigned>(date.month())));
}

std::string weekdayName(Date date) {
    static constexpr std::array names = {"Sunday",   "Monday", "Tuesday", "Wednesday",
                                         "Thursday", "Friday", "Saturday"};
    return names.at(weekday{sys_days{date}}.c_encoding());
}

Date addDays(Date date, int days_) {
    return Date{sys_days{date} + days{days_}};
}

int daysBetween(Date a, Date b) {
    return static_cast<int>((sys_days{b} - sys_days{a}).count());
}

} // namespace jg
