// SPDX-License-Identifier: GPL-3.0-or-later
// All that a letter follows from, to see whether another would be made now.
#pragma once

#include "desk/session/review_session.h"

#include <map>
#include <string>

namespace jg {

/// Each part by its name: what leads to the same letter for the same person is equal. A value.
using LetterGround = std::map<std::string, std::string>;

/// Of a session as it stands. Errors: those of reading the library.
Result<LetterGround> groundOf(const ReviewSession& session);

/// What is another now, in words: "the athlete's page and the review". Pure.
Message changedBetween(const LetterGround& was, const LetterGround& now);

} // namespace jg
