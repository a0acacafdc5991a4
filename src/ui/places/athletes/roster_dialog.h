// SPDX-License-Identifier: GPL-3.0-or-later
// A roster from a file: what each row would do, and one key that keeps them.
#pragma once

#include "desk/intake/roster.h"

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// Reads a table, shows what each of its rows would do, and keeps those that are new or changed when that is
/// agreed to. `then` gets a sentence for the foot.
void askRoster(QWidget* parent, Library& library, const QString& file, Date today,
               const std::function<void(const QString&)>& then);

} // namespace jg::ui
