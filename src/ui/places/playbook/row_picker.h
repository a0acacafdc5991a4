// SPDX-License-Identifier: GPL-3.0-or-later
// Picks a measure or an item that an approach does not ask yet.
#pragma once

#include "coaching/playbook.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// A list narrowed as typed; Enter or a click takes one, Esc none. `playbook` outlives the dialog.
void pickRow(QWidget* parent, const Playbook& playbook, const Approach& approach,
             const std::function<void(const std::string& id)>& then);

} // namespace jg::ui
