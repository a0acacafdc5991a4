// SPDX-License-Identifier: GPL-3.0-or-later
// A new measure from the formula kinds.
#pragma once

#include "kinematics/own_measure.h"

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// Asks for name, kind, landmarks and positions. `keep` returns what is wrong, or nothing when it was kept;
/// then the dialog closes. Esc keeps nothing.
void askOwnMeasure(QWidget* parent, const std::function<QString(const OwnMeasureOrder&)>& keep);

} // namespace jg::ui
