// SPDX-License-Identifier: GPL-3.0-or-later
// A fault told to who mends the program: the coach reads the report, and hands it on or not.
#pragma once

#include "library/store.h"

class QWidget;

namespace jg::ui {

/// Opens beside the window; what was noted until now stands in it.
void openFaultReport(QWidget* parent, Store& store, std::int64_t nowUnix, bool namesHidden);

} // namespace jg::ui
