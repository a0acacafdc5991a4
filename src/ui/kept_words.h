// What stands in the foot about keeping.
#pragma once

#include "desk/review_session.h"
#include "ui/words.h"

namespace jg::ui {

class Foot;

/// Whether what is done is kept: "kept", or why not.
QString keptWords(const Library& library);

/// How far the last change of a review has come, in the foot: *kept* only when it is on the disk.
void showKept(const ReviewSession& session, Foot& foot);

} // namespace jg::ui
