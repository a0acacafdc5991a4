// SPDX-License-Identifier: GPL-3.0-or-later
// The request for another film, ready to copy.
#pragma once

#include "desk/session/review_session.h"

class QWidget;

namespace jg::ui {

/// Shows text and drawing for the clip at hand; the view can be changed, the text edited, both copied or the
/// drawing saved.
void showRefilmRequest(QWidget* parent, const ReviewSession& session);

} // namespace jg::ui
