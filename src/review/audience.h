// For whom a letter is written, and in which language.
#pragma once

#include "base/message.h"

#include <optional>
#include <string_view>
#include <vector>

namespace jg {

struct Athlete;
struct Review;

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

/// All that a sentence depends on beside what was found.
struct ReadBy {
    Audience reader = Audience::Player;
    int age = 0;        ///< of the athlete; chooses the cue
    double heightM = 0; ///< of the athlete; 0 = not known
    /// Which of several wordings of a usual sentence is said: by the review, so that two letters of one
    /// season are not alike and one letter is told alike everywhere.
    unsigned wording = 0;
};

/// How many wordings a usual sentence has.
inline constexpr unsigned kWordings = 3;

/// As the coach chose, else by age: under twelve young, else the player. Pure.
ReadBy readBy(const Review& review, const Athlete& athlete);

/// Up to which school year a reader's sentences should be easy: own choice.
double mostSchoolYear(Audience reader);

} // namespace jg
