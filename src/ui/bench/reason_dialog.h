// SPDX-License-Identifier: GPL-3.0-or-later
// Why something can't be seen: one choice, one key.
#pragma once

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// Asks for a reason with the usual ones as buttons (keys 1 to 6) and hands it on; Esc asks nothing further.
void askReason(QWidget* parent, const QString& title, const std::function<void(const QString&)>& then);

} // namespace jg::ui
