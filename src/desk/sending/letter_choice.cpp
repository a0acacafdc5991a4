// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/letter_choice.h"

#include "base/number.h"
#include "letter/narrated_film.h"

#include <algorithm>
#include <utility>

namespace jg {

LetterChoice letterChoiceOf(Store& store) {
    LetterChoice c;
    c.paper = store.setting("letter.paper") == "letter" ? Paper::Letter : Paper::A4;
    c.phonePage = store.setting("letter.phonePage") != "no";
    c.upright = store.setting("film.shape") == "upright";
    c.burntCaptions = store.setting("film.captions") == "burnt";
    if (const auto mb = parseNumber(store.setting("film.mostMb")))
        c.mostMb = static_cast<int>(std::clamp(*mb, 1.0 * kLeastFilmMb, 1.0 * kMostFilmMb));
    const auto minutes = [&](const char* key, int& seconds) {
        if (const auto m = parseNumber(store.setting(key)))
            seconds = 60 * static_cast<int>(std::clamp(*m, 1.0, 1.0 * kMostSayingMinutes));
    };
    minutes("say.leastMinutes", c.saying.leastS);
    minutes("say.mostMinutes", c.saying.mostS);
    return c;
}

Status keepLetterChoice(Store& store, const LetterChoice& c) {
    const std::pair<const char*, std::string> settings[] = {
        {"letter.paper", c.paper == Paper::Letter ? "letter" : "a4"},
        {"letter.phonePage", c.phonePage ? "yes" : "no"},
        {"film.shape", c.upright ? "upright" : "wide"},
        {"film.captions", c.burntCaptions ? "burnt" : "track"},
        {"film.mostMb", std::to_string(c.mostMb)},
        {"say.leastMinutes", std::to_string(c.saying.leastS / 60)},
        {"say.mostMinutes", std::to_string(c.saying.mostS / 60)}};
    std::vector<SettingChange> changes; // all or none; of two who choose at once the second stands
    for (const auto& [key, value] : settings) changes.push_back({key, store.setting(key), value});
    return store.changeSettings(changes);
}

void applyChoice(const LetterChoice& c, FilmRecipe& film) {
    constexpr int kLong = 1280, kShort = 720;
    film.width = c.upright ? kShort : kLong;
    film.height = c.upright ? kLong : kShort;
    film.burntCaptions = c.burntCaptions;
    film.mostBytes = static_cast<std::int64_t>(c.mostMb * kMegabyte);
}

} // namespace jg
