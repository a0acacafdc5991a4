// Editing an athlete.
#pragma once

#include "review/people.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Shows the athlete's facts to be changed; what is kept is handed on. Esc changes nothing.
void editAthlete(QWidget* parent, const Athlete& athlete, Date today,
                 const std::function<void(const Athlete&)>& then);

} // namespace jg::ui
