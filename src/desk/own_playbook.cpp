#include "desk/own_playbook.h"

#include "desk/own_approaches.h"
#include "desk/own_measures.h"
#include "desk/own_rows.h"

namespace jg {

Status loadOwnPlaybook(Library& library, Playbook& playbook) {
    Status first = Done{};
    for (const auto& load : {loadOwnMeasures, loadOwnRows, loadOwnApproaches})
        if (Status loaded = load(library, playbook); !loaded && first) first = loaded;
    return first;
}

} // namespace jg
