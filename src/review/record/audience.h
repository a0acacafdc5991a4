// SPDX-License-Identifier: GPL-3.0-or-later
// For whom a letter is written, and in which language.
#pragma once

#include "base/message.h"

#include <optional>
#include <string_view>
#include <vector>

namespace jg {

/// Young: the player, under twelve. Parents read a letter to their child, with what helps them beside it.
enum class Audience { Young, Player, Parent };
enum class Language { English, Spanish };

std::string_view idOf(Audience reader);
std::optional<Audience> audienceFromId(std::string_view id);
/// "the player, under 12"
Message nameOf(Audience reader);
const std::vector<Audience>& allAudiences();

/// A BCP 47 tag: "en", "es".
std::string_view idOf(Language language);
std::optional<Language> languageFromId(std::string_view id);
Message nameOf(Language language);
const std::vector<Language>& allLanguages();

/// Up to which school year a reader's sentences should be easy: own choice.
double mostSchoolYear(Audience reader);

} // namespace jg
