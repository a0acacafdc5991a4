#include "desk/begin_judging.h"

namespace jg {

Result<Judging> beginJudging(Store& store, const Playbook& playbook, const Approach& approach) {
    Judging judging{approach, {}, {}};
    if (!playbook.text) return judging;
    auto kept = store.keepPlaybook(*playbook.text);
    if (!kept) return kept.error();
    judging.playbook = *kept;
    return judging;
}

} // namespace jg
