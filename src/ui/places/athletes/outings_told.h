// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete's outings as they told them: pitches, how it felt, and the rest that guidance asks for.
#pragma once

#include "review/record/people.h"

#include <QString>

#include <functional>
#include <optional>

class QWidget;

namespace jg::ui {

/// The newest of them with a door each to take it out, and one to enter another. `edited` gets the athlete as
/// they are to be kept, and says why they can't be.
QWidget* outingsTold(const Athlete& athlete, Date today,
                     const std::function<std::optional<QString>(const Athlete&)>& edited);

} // namespace jg::ui
