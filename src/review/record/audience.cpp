// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/audience.h"

#include <array>

namespace jg {

namespace {

constexpr std::array<std::string_view, 3> kReaders = {"young", "player", "parent"};
constexpr std::array<std::string_view, 2> kLanguages = {"en", "es"};

template <typename Value, std::size_t Count>
std::optional<Value> fromId(const std::array<std::string_view, Count>& ids, std::string_view id) {
    for (std::size_t i = 0; i < Count; ++i)
        if (ids[i] == id) return static_cast<Value>(i);
    return std::nullopt;
}

} // namespace

std::string_view idOf(Audience reader) {
    return kReaders.at(static_cast<std::size_t>(reader));
}
std::optional<Audience> audienceFromId(std::string_view id) {
    return fromId<Audience>(kReaders, id);
}
Message nameOf(Audience reader) {
    return msg("reader." + std::string(idOf(reader)));
}
const std::vector<Audience>& allAudiences() {
    static const std::vector<Audience> all = {Audience::Young, Audience::Player, Audience::Parent};
    return all;
}

std::string_view idOf(Language language) {
    return kLanguages.at(static_cast<std::size_t>(language));
}
std::optional<Language> languageFromId(std::string_view id) {
    return fromId<Language>(kLanguages, id);
}
Message nameOf(Language language) {
    return msg("language." + std::string(idOf(language)));
}
const std::vector<Language>& allLanguages() {
    static const std::vector<Language> all = {Language::English, Language::Spanish};
    return all;
}

double mostSchoolYear(Audience reader) {
    switch (reader) {
    case Audience::Young:
        return 5;
    case Audience::Player:
        return 8;
    case Audience::Parent:
        break;
    }
    return 9;
}

} // namespace jg
