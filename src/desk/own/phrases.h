// SPDX-License-Identifier: GPL-3.0-or-later
// The coach's own phrases: what was written once in a place of a letter is offered there next time.
#pragma once

#include "library/store.h"

#include <string>
#include <vector>

namespace jg {

inline constexpr std::size_t kMostPhrases = 5; ///< that are kept of one place, the newest first

/// What was written in a place (LetterSentence::key) of any letter.
std::vector<std::string> phrasesFor(Store& store, const std::string& key);
/// Errors: those of writing.
Status rememberPhrase(Store& store, const std::string& key, const std::string& words);

} // namespace jg
