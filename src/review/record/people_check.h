// SPDX-License-Identifier: GPL-3.0-or-later
// What is typed of a person, read and checked.
#pragma once

#include "base/result.h"
#include "review/record/people.h"

#include <optional>
#include <string>
#include <string_view>

namespace jg {

/// A day as a person writes it: "2011-03-09", "9 March 2011", "March 9, 2011", "9 Mar 2011", "9.3.2011".
/// Nothing for anything else: "3/9/2011" may be two days and is not guessed.
std::optional<Date> dateFromWords(std::string_view words);

/// One mail address and nothing beside it, as every mail server carries it: letters of ASCII, no space, comma
/// or second address, no quotes (RFC 5321, 4.1.2 and 4.5.3.1, from memory, without its quoted strings). It
/// does not say that anybody reads there.
bool isOneAddress(std::string_view address);

/// Whether the guardian's address is the athlete's own, whatever the case of its letters.
bool guardianIsThemselves(const Athlete& athlete);

/// Whether an athlete can be kept: a name, an age of 5 to 99 (own choice), one address each, and not the same
/// address for a minor and the guardian. A minor without a guardian's address is allowed; no letter goes out
/// then. Errors: BadInput, with what to do.
Status checkAthlete(const Athlete& athlete, Date today);

inline constexpr int kMostPitches = 250; ///< in one outing: more is a slip of the pen, own choice

/// An outing as it is typed: the day, the number of pitches, how it felt. Errors: BadInput, in a sentence.
Result<PitchCount> pitchCountFromWords(std::string_view day, std::string_view pitches, std::string_view felt,
                                       Date today);

/// Puts an outing where its day belongs; one of the same day is another one. Pure.
void addOuting(Athlete& athlete, PitchCount outing);

} // namespace jg
