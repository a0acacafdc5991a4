// SPDX-License-Identifier: GPL-3.0-or-later
// For whom a letter is written, in which language, and how hard it reads.
#pragma once

#include "desk/session/review_session.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// "Written for the player, in English; easy from school year 6." `letter` is the session's.
Message readerInWords(const ReviewSession& session, const LetterModel& letter);

/// Asks; `keep` is called when both were chosen, its error stays in the form.
void askReader(QWidget* parent, const ReviewSession& session,
               const std::function<Status(Audience, Language)>& keep);

} // namespace jg::ui
