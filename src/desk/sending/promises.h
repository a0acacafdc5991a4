// SPDX-License-Identifier: GPL-3.0-or-later
// Promises: made where they arise, kept or broken on record.
#pragma once

#include "library/store.h"

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// What a letter promises once it went out: drills until the next look and the film for it, by the athlete;
/// the look itself, by the house. None without a next look. Pure.
std::vector<Promise> promisesOfLetter(const Review& review, const Athlete& athlete, Date sentOn);

/// Keeps how an open promise ended, with the coach's words if any. One that is closed already stays as it is.
/// Errors: NotFound, those of Store.
Status closePromise(Store& store, std::int64_t row, Kept how, const std::string& words, Date on);

/// "the house owes", "the athlete owes".
Message whoOwes(const Promise& promise);

/// When it is due, from today: "due today", "3 days late", "due 4 December"; empty without a date.
Message dueInWords(const Promise& promise, Date today);

/// How it ended, with its day and words: "kept on 4 December", "not kept, 4 December: no time"; empty while
/// it is open.
Message endInWords(const Promise& promise);

} // namespace jg
