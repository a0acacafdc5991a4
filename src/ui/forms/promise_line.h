// SPDX-License-Identifier: GPL-3.0-or-later
// A promise on the desk and on an athlete's page.
#pragma once

#include "review/record/people.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// What was promised, who owes it, when it is due or how it ended; an open one can be closed as kept or not.
QWidget* promiseLine(const Promise& promise, Date today, const std::function<void(Kept)>& close);

} // namespace jg::ui
