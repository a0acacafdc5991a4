// SPDX-License-Identifier: GPL-3.0-or-later
// A question before something that can't be taken back.
#pragma once

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// From now on nobody is asked anything: the system ends the program. In the window's thread.
void askNobody();
bool nobodyIsAsked();

/// Asks, without blocking the window; `yes` is what is done, in a word or two, and `then` does it. Escape and
/// the other button leave all as it is.
void askFirst(QWidget* parent, const char* name, const QString& question, const QString& yes,
              std::function<void()> then);

} // namespace jg::ui
