// SPDX-License-Identifier: GPL-3.0-or-later
// The library looked over: what is not as it should be, and its repair.
#pragma once

#include "base/clock.h"
#include "base/date.h"
#include "library/library.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Looks the whole library over in a job and lists what is wrong, each with what a repair would do. Nothing
/// is changed before that is agreed to. `changed` is called after a repair. A backup can be made from
/// here. Library and clock outlive the dialog.
void lookOverLibrary(QWidget* parent, Library& library, const Clock& clock,
                     const std::function<void()>& changed);

} // namespace jg::ui
