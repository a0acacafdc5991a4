// SPDX-License-Identifier: GPL-3.0-or-later
// Parts of an athlete's page that tell of the lesson to come and of what became of the last.
#pragma once

#include "desk/pages/log.h"

#include <QWidget>

namespace jg::ui {

/// What the last letter worked on and how it stands now, what to film, what is owed. Null when there is
/// nothing to say.
QWidget* beforeTheLesson(const AthleteLog& log, const Playbook& playbook, Date today);

/// The newest review against the baseline, a line a finding. Null without one.
QWidget* sinceThen(const AthleteLog& log, const Playbook& playbook);

} // namespace jg::ui
