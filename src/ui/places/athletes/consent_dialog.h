// SPDX-License-Identifier: GPL-3.0-or-later
// What an athlete or a guardian allowed, as it is entered.
#pragma once

#include "review/record/people.h"

#include <QString>

#include <functional>
#include <optional>

class QWidget;

namespace jg::ui {

/// Asks for a consent; `keep` gets the athlete with it, and says why it can't be kept, if so. What
/// is no day stays in the form with a sentence.
void askConsent(QWidget* parent, const Athlete& athlete, Date today,
                const std::function<std::optional<QString>(const Athlete&)>& keep);

} // namespace jg::ui
