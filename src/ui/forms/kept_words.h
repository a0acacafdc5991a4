// SPDX-License-Identifier: GPL-3.0-or-later
// What stands in the foot about keeping.
#pragma once

#include "desk/session/review_session.h"
#include "ui/kit/words.h"

namespace jg::ui {

class Foot;

/// Whether what is done is kept: "kept", or why not.
QString keptWords(const Library& library);

/// How far the last change of a review has come, in the foot: *kept* only when it is on the disk.
void showKept(const ReviewSession& session, Foot& foot);

} // namespace jg::ui
