// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/cli/open_library.h"

#include "coaching/playbook_reader.h"
#include "desk/keeping/house_zone.h"
#include "desk/keeping/length_choice.h"
#include "desk/keeping/places.h"
#include "desk/own/own_playbook.h"

namespace jg::cli {

std::unique_ptr<Library> openLibrary(const std::string& folder) {
    auto library = orRefuse(Library::open(folder, false, std::make_shared<FileStore>()));
    orRefuse(useTimeZone(library->setting("house.timeZone")));
    return library;
}

Playbook playbookOf(Library& library) {
    Playbook book = orRefuse(loadPlaybook(dataFolder() / "playbook"));
    orRefuse(loadOwnPlaybook(library, book));
    loadLengthUnit(library, book);
    return book;
}

AthleteId athleteCalled(Library& library, const std::string& word) {
    std::vector<AthleteId> found;
    for (const Athlete& athlete : orRefuse(library.athletes())) {
        if (athlete.id.value == word) return athlete.id;
        if (athlete.fullName() == word || athlete.firstName == word) found.push_back(athlete.id);
    }
    if (found.size() != 1)
        throw Refusal(
            msg(found.empty() ? "library-commands.nobody" : "library-commands.several", {{"name", word}}));
    return found.front();
}

} // namespace jg::cli
