// What a review is judged by, frozen when it is begun.
#pragma once

#include "coaching/playbook.h"
#include "library/store.h"

namespace jg {

/// A judging by an approach, nothing graded yet; the playbook's text is kept in the library for it. Errors:
/// those of Store.
Result<Judging> beginJudging(Store& store, const Playbook& playbook, const Approach& approach);

} // namespace jg
