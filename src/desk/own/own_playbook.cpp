// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/own_playbook.h"

#include "desk/own/own_approaches.h"
#include "desk/own/own_measures.h"
#include "desk/own/own_rows.h"

namespace jg {

Status loadOwnPlaybook(Library& library, Playbook& playbook) {
    Status first = Done{};
    for (const auto& load : {loadOwnMeasures, loadOwnRows, loadOwnApproaches})
        if (Status loaded = load(library, playbook); !loaded && first) first = loaded;
    return first;
}

} // namespace jg
