// Editing an athlete.
#pragma once

#include "coaching/playbook.h"
#include "review/people.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Shows the athlete's facts to be changed, and by what they are judged; what is kept is handed on. Esc
/// changes nothing.
void editAthlete(QWidget* parent, const Athlete& athlete, const Playbook& playbook, Date today,
                 const std::function<void(const Athlete&)>& then);

} // namespace jg::ui
