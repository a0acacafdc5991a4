// SPDX-License-Identifier: GPL-3.0-or-later
// A look at a film before it is taken in.
#pragma once

#include <QString>

class QWidget;

namespace jg::ui {

/// Shows a film in a window of its own: Space plays, the arrows step, Esc closes.
void previewFilm(QWidget* parent, const QString& path);

} // namespace jg::ui
