// SPDX-License-Identifier: GPL-3.0-or-later
// What the film in hand shows, and under which conditions its delivery was thrown.
#pragma once

#include "desk/session/review_session.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Shows side and rate of the film in hand and the conditions of its delivery, to be changed. What is kept is
/// said by `say`; Esc changes nothing.
void showFilmDialog(QWidget* parent, ReviewSession& session, const std::function<void(const QString&)>& say);

} // namespace jg::ui
