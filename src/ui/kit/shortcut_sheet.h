// SPDX-License-Identifier: GPL-3.0-or-later
// All keys on one sheet, from the action table.
#pragma once

class QWidget;

namespace jg::ui {

/// Opens it at the keys of `where`, a place of the table.
void showShortcutSheet(QWidget* parent, unsigned where);

} // namespace jg::ui
