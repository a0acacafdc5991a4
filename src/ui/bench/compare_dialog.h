// SPDX-License-Identifier: GPL-3.0-or-later
// One delivery by two approaches.
#pragma once

#include "desk/session/review_session.h"

class QWidget;

namespace jg::ui {

/// Shows each row that either approach asks of, with its verdict by both; where they disagree stands first.
/// Nothing is changed, and targets are never averaged.
void showComparison(QWidget* parent, const ReviewSession& session, const Approach& other);

} // namespace jg::ui
