// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/class_look.h"

namespace jg {

namespace {

/// A, B, ... Z, AA, AB, ...
std::string letterOf(std::size_t n) {
    std::string letters;
    for (++n; n > 0; n = (n - 1) / 26) letters.insert(letters.begin(), static_cast<char>('A' + (n - 1) % 26));
    return letters;
}

} // namespace

Result<NameVeil> veilOfLibrary(Library& library, const Words& words) {
    const auto athletes = library.athletes();
    if (!athletes) return athletes.error();
    std::vector<NameVeil::Person> people;
    for (std::size_t i = 0; i < athletes->size(); ++i) {
        const Athlete& a = (*athletes)[i];
        const std::string letter = letterOf(i);
        people.push_back({{a.firstName, a.lastName}, words(msg("class-look.athlete", {{"letter", letter}}))});
        // A name that both share is the athlete's.
        std::string guardian = a.guardianName;
        for (const std::string& own : {a.lastName, a.firstName})
            if (const auto at = guardian.rfind(own); !own.empty() && at != guardian.npos)
                guardian.erase(at, own.size());
        if (!guardian.empty())
            people.push_back({{guardian}, words(msg("class-look.guardian", {{"letter", letter}}))});
    }
    return NameVeil(people, words(msg("class-look.somebody")));
}

} // namespace jg
