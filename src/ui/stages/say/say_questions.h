// SPDX-License-Identifier: GPL-3.0-or-later
// What Say asks in forms of its own.
#pragma once

#include "desk/session/review_session.h"
#include "review/compare/juxta.h"
#include "review/tell/prompt.h"
#include "ui/kit/form_dialog.h"

#include <QString>

#include <functional>
#include <optional>
#include <string>
#include <vector>

class QWidget;

namespace jg::ui {

/// Which findings get a stop; `then` has the ids of those that were ticked.
void askFindings(QWidget* parent, const std::vector<Tickable>& rows,
                 const std::function<void(const std::vector<std::string>&)>& then);

/// What a stop of the coach's own is about.
void askOwnStop(QWidget* parent, const std::function<void(const QString& title)>& then);

/// The captions of a stop; `then` has nothing when they are the prompt's.
void askCaptions(QWidget* parent, const QString& title, const QString& written, const QString& prompted,
                 const std::function<void(const QString& words)>& then);

/// How long a review that is said is to take. `keep` may refuse.
void askLength(QWidget* parent, const SayingLength& now, int mostMinutes,
               const std::function<Status(const SayingLength&)>& keep);

/// Which earlier delivery stands beside a stop; nothing = none. `tell` gets a sentence when there is none to
/// choose from.
void askBeside(QWidget* parent, const ReviewSession& session, const Stop& stop,
               const std::function<void(const QString&)>& tell,
               const std::function<void(const std::optional<JuxtaKey>&)>& then);

} // namespace jg::ui
