// SPDX-License-Identifier: GPL-3.0-or-later
// Editing an athlete.
#pragma once

#include "coaching/playbook.h"
#include "review/record/people.h"

#include <QString>

#include <functional>
#include <optional>

class QWidget;

namespace jg::ui {

/// Shows the athlete's facts to be changed, and by what they are judged; what is left is handed to
/// `keepAthlete`, which says why it can't be kept, if so. Esc changes nothing.
void editAthlete(QWidget* parent, const Athlete& athlete, const Playbook& playbook, Date today,
                 const std::function<std::optional<QString>(const Athlete&)>& keepAthlete);

} // namespace jg::ui
