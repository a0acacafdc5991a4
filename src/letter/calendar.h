// SPDX-License-Identifier: GPL-3.0-or-later
// The week of a letter as a calendar file that phones and computers read.
#pragma once

#include "base/date.h"
#include "review/tell/letter_model.h"
#include "words/words.h"

#include <cstdint>
#include <string>

namespace jg {

/// What a calendar is made of.
struct CalendarOrder {
    const LetterModel& letter;
    std::string athlete;      ///< first name
    std::string id;           ///< of the review; makes the entries' own ids, the same each time
    std::int64_t writtenUnix; ///< seconds since 1970 UTC
};

/// iCalendar (RFC 5545): each day of the week with drills as an entry of the whole day that comes back weekly
/// until the next look, and the next look itself. No place and no address stands in it. Empty when the letter
/// has neither drills nor a next look. Any thread.
std::string writeCalendar(const CalendarOrder& order, const Words& words);

} // namespace jg
